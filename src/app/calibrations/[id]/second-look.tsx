import Link from 'next/link';
import { formatLength } from '@/core/units/length';
import type { Analysis } from '@/server/services/analysis';
import { nextSpot, type NextSpot } from '@/server/services/next-spot';
import type { RepeatsView } from '@/server/services/repeats';
import type { StepProps } from './step-props';

const ORDINALS = ['', 'a first', 'a second', 'a third', 'a fourth'];

/** Looks that contradict each other or are left out, each with the way to one more. */
export function LooksInDispute({ id, repeats }: { readonly id: string; readonly repeats: RepeatsView }) {
  return repeats.notes.map((n) => (
    <p key={n.words} className="notice">
      {`${n.words} `}
      {n.nextLook && (
        <Link
          href={`/calibrations/${id}/read?look=fine&again=${n.nextLook}&spot=${n.spotNo}&axis=${n.axis}`}
          prefetch={false}
        >
          Look once more
        </Link>
      )}
    </p>
  ));
}

/** Less than a twentieth of the doubt is not worth walking to the sheet for. */
const WORTHWHILE = 0.95;

interface BestSpotProps {
  readonly next: NextSpot;
  readonly system: StepProps['system'];
  readonly read: string;
}

function BestSpot({ next, system, read }: BestSpotProps) {
  const { spotNo, axis, lookNo, isRead, doubt } = next;
  const link = (
    <Link href={`${read}&again=${lookNo}&spot=${spotNo}&axis=${axis}`} prefetch={false}>
      {`Read spot ${spotNo}`}
    </Link>
  );
  if (!doubt)
    return (
      <p>
        {`These readings carry no whole map yet. Of single spots, spot ${spotNo} brings it furthest. `}
        {link}
      </p>
    );
  const { beforeMm, afterMm } = doubt;
  const before = formatLength(beforeMm, system);
  if (afterMm > WORTHWHILE * beforeMm)
    return (
      <p>{`No single spot would take much from the allowance for doubt at the worst corner, ${before}: another load, or a look at every figure, helps more.`}</p>
    );
  return (
    <p>
      {`Of single spots, spot ${spotNo} helps most, ${isRead ? 'looked at once more' : 'not read yet'}: the allowance for doubt at the worst corner goes from ${before} to ${formatLength(afterMm, system)}. `}
      {link}
    </p>
  );
}

interface SecondLookProps extends Pick<StepProps, 'record' | 'system'> {
  readonly analysis: Analysis;
  readonly repeats: RepeatsView;
}

/** How steady the eye is, and where one more look helps most. */
export function SecondLook({ record, system, analysis, repeats }: SecondLookProps) {
  const { id } = record.calibration;
  const { steadiness, nextLook } = repeats;
  const next = nextSpot(record, analysis);
  const read = `/calibrations/${id}/read?look=fine`;
  return (
    <section aria-label="Looking again" className="mt-3">
      {steadiness && <p className="quiet">{steadiness}</p>}
      {next && <BestSpot next={next} system={system} read={read} />}
      {nextLook && (
        <p>
          <Link className="btn btn-quiet" href={`${read}&again=${nextLook}`} prefetch={false}>
            {`Take ${ORDINALS[nextLook] ?? 'another'} look at every figure`}
          </Link>
          <span className="quiet d-block">
            Looks that are blind to each other show how steady the eye is and catch slips.
          </span>
        </p>
      )}
    </section>
  );
}
