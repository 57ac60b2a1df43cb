import { redirect } from 'next/navigation';
import { WELCOME_PATH } from '@/server/services/first-page';
import { everyShop } from '@/server/services/session';
import { PageHeading } from '@/ui/components/PageHeading';
import { ChooseShop } from '@/ui/shop/ChooseShop';

export const dynamic = 'force-dynamic';

/** Asks a browser that has not said so in which shop it is. */
export default async function ChooseShopPage() {
  const shops = await everyShop();
  if (shops.length === 0) redirect(WELCOME_PATH);
  return (
    <main className="welcome">
      <p className="peg">Red Plumb</p>
      <PageHeading>Which shop are you in?</PageHeading>
      <ChooseShop shops={shops} />
    </main>
  );
}
