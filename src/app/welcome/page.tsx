import { redirect } from 'next/navigation';
import { everyShop } from '@/server/services/session';
import { PageHeading } from '@/ui/components/PageHeading';
import { AddDemo } from '@/ui/shop/AddDemo';
import { NewShopForm } from '@/ui/shop/NewShopForm';

export const dynamic = 'force-dynamic';

/** The first page of an empty database: what this is, and the few things it needs to know. */
export default async function WelcomePage() {
  if ((await everyShop()).length > 0) redirect('/');
  return (
    <main className="welcome">
      <p className="peg">Red Plumb</p>
      <PageHeading>Bring the cut to the print</PageHeading>
      <p>
        Red Plumb measures how far your cutter cuts beside the print, says which values to set on the machine, and
        proves that they are right.
      </p>
      <div className="two">
        <section aria-label="Your shop">
          <h2>Your shop</h2>
          <NewShopForm />
        </section>
        <section aria-label="Or look around first">
          <h2>Or look around first</h2>
          <p>The demo shop has printers and cutters that are simulated. You can remove it later.</p>
          <AddDemo label="Open a demo shop" />
        </section>
      </div>
    </main>
  );
}
