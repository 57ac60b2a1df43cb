import Link from 'next/link';
import { notFound } from 'next/navigation';
import { z } from 'zod';
import { formatSize, type UnitSystem } from '@/core/units/length';
import { database } from '@/server/services/database';
import { readRolls, type RollsView } from '@/server/services/roll-read';
import { currentSession } from '@/server/services/session';
import { stampWords } from '@/ui/components/dates';
import { HomeShell } from '@/ui/components/HomeShell';
import { RollStart } from '@/ui/roll/RollStart';
import { PageHeading } from '@/ui/components/PageHeading';

export const dynamic = 'force-dynamic';

const KIND_WORDS = { strip: 'test strip', run: 'run' } as const;

interface EarlierProps {
  readonly rolls: RollsView['rolls'];
  readonly system: UnitSystem;
  readonly timeZone: string;
}

function Earlier({ rolls, system, timeZone }: EarlierProps) {
  if (rolls.length === 0) return <p>No roll was looked at yet.</p>;
  return (
    <table className="plain">
      <thead>
        <tr>
          <th>begun</th>
          <th>what</th>
          <th>material</th>
          <th>length</th>
          <th>read</th>
          <th>by</th>
        </tr>
      </thead>
      <tbody>
        {rolls.map((r) => (
          <tr key={r.id}>
            <td>
              <Link href={`/rolls/${r.id}`} prefetch={false}>
                {stampWords(r.startedAt, timeZone)}
              </Link>
            </td>
            <td>{`${KIND_WORDS[r.kind]}${r.state === 'ended' ? ', closed' : ''}`}</td>
            <td>{r.materialName}</td>
            <td className="figures">{formatSize(r.spacingMm * r.stations, system)}</td>
            <td className="figures">{r.readings}</td>
            <td>{r.startedByName}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** One section that is to be confirmed, as the page of sections asks for it. */
const Asked = z.object({
  materialId: z.uuid(),
  widthMm: z.coerce.number().positive(),
  spacingMm: z.coerce.number().positive(),
  stations: z.coerce.number().int().min(1),
  toleranceMm: z.coerce.number().positive(),
});

interface Props {
  readonly params: Promise<{ id: string }>;
  readonly searchParams: Promise<Readonly<Record<string, string | string[] | undefined>>>;
}

export default async function RollsPage({ params, searchParams }: Props) {
  const [{ id }, search] = await Promise.all([params, searchParams]);
  const asked = Asked.safeParse(search);
  const [session, found] = await Promise.all([currentSession(), readRolls(database(), id)]);
  if (!found) notFound();
  const system = session.person.unitSystem;
  return (
    <HomeShell here="Bench" people={session}>
      <PageHeading>{`${found.setupName}: rolls`}</PageHeading>
      <p className="quiet">
        On a long roll the last piece is not cut where the first was. Read a strip, and be told what drifts, what to key
        in, and how long a section may be.
      </p>
      <RollStart view={{ ...found, setupId: id, system, asked: asked.success ? asked.data : null }} />
      <section className="mt-4">
        <h2>Rolls so far</h2>
        <Earlier rolls={found.rolls} system={system} timeZone={session.person.timeZone} />
      </section>
    </HomeShell>
  );
}
