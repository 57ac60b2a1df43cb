import { seededRng, seedFrom } from '@/core/math/random';
import { stripOf } from '@/server/services/rolls';
import { StandInButton } from '@/ui/roll/RollButtons';
import { StationListForm } from '@/ui/roll/StationListForm';
import { StationReader } from '@/ui/roll/StationReader';
import type { RollProps } from './roll-props';
import { PageHeading } from '@/ui/components/PageHeading';

/** Stations read by eye, one after another, or as a list. */
export function ReadStripPage({ record, system, nav }: RollProps) {
  const { roll, readings, figures } = record;
  const kept = Object.fromEntries(
    [...readings].map(([name, { state, readingMm }]) => [name, { state, readingMm }] as const),
  );
  const firstStartMm = seededRng(seedFrom(roll.id, readings.size))() - 0.5;
  return (
    <>
      <PageHeading>{`Read the strip: ${readings.size} of ${figures.length} figures done`}</PageHeading>
      {nav}
      <p className="caution">
        Feel a cut only when the machine stands still. Account for every loose strip: they jam rollers and eye.
      </p>
      {record.isSimulated && readings.size < figures.length && (
        <StandInButton rollId={roll.id} words="Let the stand-in read what is left" />
      )}
      <StationReader key={readings.size} view={{ rollId: roll.id, strip: stripOf(roll), kept, firstStartMm, system }} />
      <details className="mt-4">
        <summary>Readings as a list, or a CSV file</summary>
        <StationListForm
          rollId={roll.id}
          sides={roll.sides}
          stationNos={Array.from({ length: roll.stations }, (_, i) => i + 1)}
          word="station"
          typedUnit={roll.scale}
        />
      </details>
    </>
  );
}
