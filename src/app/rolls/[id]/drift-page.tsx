import Link from 'next/link';
import { formatFixed, formatSize } from '@/core/units/length';
import { chartsOf, driftOf, partRows, rollProblemWords, stretchWords } from '@/server/services/roll-drift-view';
import { headlineOf } from '@/server/services/roll-words';
import { DriftChart } from '@/ui/roll/DriftChart';
import { RuledLengthForm } from '@/ui/roll/RollButtons';
import type { RollProps } from './roll-props';
import { PageHeading } from '@/ui/components/PageHeading';

/** What drifts along the roll, by its parts, and what each is worth at the far end. */
export function DriftPage({ record, system, nav }: RollProps) {
  const { roll } = record;
  const told = driftOf(record);
  if (!told.ok)
    return (
      <>
        <PageHeading>Drift: not told yet</PageHeading>
        {nav}
        <p className="notice">{rollProblemWords(told.error)}</p>
      </>
    );
  const drift = told.value;
  const nominalMm = roll.ruledNominalMm ?? roll.spacingMm * Math.max(1, Math.floor(1000 / roll.spacingMm));
  return (
    <>
      <PageHeading>{headlineOf(record, drift, system)}</PageHeading>
      {nav}
      {chartsOf(record, drift).map((view) => (
        <DriftChart key={view.title} view={view} system={system} />
      ))}
      <p className="quiet">
        Triangles point to the side that was read, dots are the middle. The line is the steady drift with its 95 % band;
        right of the upright line nothing was read: there the band is where a cut may fall, slip and all. Dotted: what
        is allowed, {formatSize(roll.toleranceMm, system)} either way.
      </p>
      <h2>What it is made of</h2>
      <div className="table-responsive" role="region" aria-label="Parts of the drift" tabIndex={0}>
        <table className="plain" style={{ minWidth: '44rem' }}>
          <thead>
            <tr>
              <th>part</th>
              <th>found</th>
              <th>95 % sure</th>
              <th>{`at ${formatFixed(drift.lengthMm / 1000, 1)} m`}</th>
              <th>what it is</th>
            </tr>
          </thead>
          <tbody>
            {partRows(drift, record.work?.rewindShiftsMm ?? [], system).map((row) => (
              <tr key={row.name}>
                <th scope="row">{row.name}</th>
                <td className="figures">{row.value}</td>
                <td className="figures">{row.interval}</td>
                <td className="figures">{row.farEnd}</td>
                <td>{row.words}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <section className="mt-3" aria-label="Print and cutter apart">
        <h2>Is it the print or the cutter?</h2>
        <p>
          {stretchWords(record, drift) ??
            'Stations tell the cut against the print only. A length on the print by rule, from one start line to another, tells the two apart.'}
        </p>
        <p className="quiet">
          Laminated between print and cut? Measure the same length before and after; or{' '}
          <Link href={`/setups/${roll.setupId}/measure?tool=film`} prefetch={false}>
            several lengths both ways on a sheet
          </Link>
          . What the film does is the print&rsquo;s, not the cutter&rsquo;s.
        </p>
        <RuledLengthForm
          rollId={roll.id}
          nominalMm={nominalMm}
          measuredMm={roll.ruledMm}
          laminatedMm={roll.ruledLaminatedMm}
          system={system}
        />
      </section>
    </>
  );
}
