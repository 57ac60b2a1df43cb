import type { KeptPrintSize } from '@/contracts/print-size';
import type { PrintScale } from '@/core/scan/print-size';
import { database } from '@/server/services/database';
import { keptScans } from '@/server/services/scans';
import { currentSession } from '@/server/services/session';
import { scaleWords } from '@/ui/scan/print-size-words';
import { stampWords } from '@/ui/components/dates';

const keptScale = (size: KeptPrintSize): PrintScale => ({
  across: { value: size.acrossScale, sd: size.acrossSd },
  along: { value: size.alongScale, sd: size.alongSd },
});

interface Props {
  readonly calibrationId: string;
  readonly cutSetId: string;
}

/** What was scanned of this cut before, with the small picture that was kept. */
export async function KeptScans({ calibrationId, cutSetId }: Props) {
  const kept = await keptScans(database(), cutSetId);
  const { person } = await currentSession();
  if (kept.length === 0) return null;
  return (
    <section className="mt-4">
      <h2>Scanned before</h2>
      <ul className="scan-kept">
        {kept.map(({ id, at, by, count, hasPicture, printSize, originals }) => (
          <li key={id}>
            {hasPicture && (
              <a href={`/calibrations/${calibrationId}/scans/${id}`}>
                {/* A picture of our own route: small already, and not for the framework's optimiser. */}
                {/* eslint-disable-next-line @next/next/no-img-element */}
                <img src={`/calibrations/${calibrationId}/scans/${id}`} alt={`The sheet as ${by} scanned it`} />
              </a>
            )}
            <span>{`${stampWords(at, person.timeZone)}, ${by}: ${count === 1 ? 'one picture' : `${count} pictures`}. The newest counts.${printSize ? ` ${scaleWords(keptScale(printSize))}` : ''}`}</span>
            {originals.map(({ no, fileName, bytes }) => (
              <a
                key={no}
                className="d-block mt-1"
                href={`/calibrations/${calibrationId}/scans/${id}/originals/${no}`}
                download={fileName}
              >
                {`${fileName}, ${(bytes / 1e6).toFixed(1)} MB`}
              </a>
            ))}
          </li>
        ))}
      </ul>
    </section>
  );
}
