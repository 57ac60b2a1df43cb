import { readMachines } from '@/server/services/shop-read';
import { database } from '@/server/services/database';
import { currentSession } from '@/server/services/session';
import { HomeShell } from '@/ui/components/HomeShell';
import { SetupWizard } from '@/ui/shop/SetupWizard';
import { PageHeading } from '@/ui/components/PageHeading';

export const dynamic = 'force-dynamic';

export default async function NewSetupPage() {
  const session = await currentSession();
  const machines = await readMachines(database(), session.shop.id);
  const names = (list: readonly { readonly id: string; readonly name: string }[]) =>
    list.map(({ id, name }) => ({ id, name }));
  return (
    <HomeShell here="Shop" people={session}>
      <PageHeading>Your printer + cutter, in four questions</PageHeading>
      <SetupWizard
        view={{
          system: session.person.unitSystem,
          printers: names(machines.printers),
          cutters: names(machines.cutters),
          programs: names(machines.programs),
          takenNames: machines.setups.map((s) => s.name),
        }}
      />
    </HomeShell>
  );
}
