import Link from 'next/link';
import { formatLength } from '@/core/units/length';
import type { Analysis } from '@/server/services/analysis';
import { nextSpot } from '@/server/services/next-spot';
import { repeatsView } from '@/server/services/repeats';
import type { StepProps } from './step-props';

const ORDINALS = ['', 'a first', 'a second', 'a third', 'a fourth'];

/** Looks that contradict each other or are left out, each with the way to one more. */
export function LooksInDispute({ record, system }: Pick<StepProps, 'record' | 'system'>) {
  const { id } = record.calibration;
  return repeatsView(record, system).notes.map((n) => (
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

/** How steady the eye is, and where one more look helps most. */
export function SecondLook({
  record,
  system,
  analysis,
}: Pick<StepProps, 'record' | 'system'> & { readonly analysis: Analysis }) {
  const { id } = record.calibration;
  const { steadiness, nextLook } = repeatsView(record, system);
  const next = nextSpot(record, analysis);
  const read = `/calibrations/${id}/read?look=fine`;
  return (
    <section aria-label="Looking again" className="mt-3">
      {steadiness && <p className="quiet">{steadiness}</p>}
      {next && (
        <p>
          {`Of single spots, spot ${next.spotNo} helps most, ${next.lookNo === 1 ? 'not read yet' : 'looked at once more'}: the allowance for doubt at the worst corner goes from ${formatLength(next.beforeMm, system)} to ${formatLength(next.afterMm, system)}. `}
          <Link href={`${read}&again=${next.lookNo}&spot=${next.spotNo}&axis=${next.axis}`} prefetch={false}>
            {`Read spot ${next.spotNo}`}
          </Link>
        </p>
      )}
      {nextLook && (
        <p>
          <Link className="btn btn-quiet" href={`${read}&again=${nextLook}`} prefetch={false}>
            {`Take ${ORDINALS[nextLook] ?? 'another'} look at every figure`}
          </Link>
          <span className="quiet d-block">
            A second look, blind to the first, shows how steady the eye is and catches slips.
          </span>
        </p>
      )}
    </section>
  );
}
