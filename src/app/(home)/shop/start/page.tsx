import { currentSession } from '@/server/services/session';
import { HomeShell } from '@/ui/components/HomeShell';
import { PageHeading } from '@/ui/components/PageHeading';
import { NewShopForm } from '@/ui/shop/NewShopForm';

export const dynamic = 'force-dynamic';

/** Makes another shop beside those that are here. */
export default async function StartShopPage() {
  const session = await currentSession();
  return (
    <HomeShell here="Shop" people={session}>
      <PageHeading>Your own shop</PageHeading>
      <p>It has its own machines, people and history. Nothing is shared with other shops here.</p>
      <NewShopForm />
    </HomeShell>
  );
}
