import Link from 'next/link';
import { formatLength, type UnitSystem } from '@/core/units/length';
import type { Verdict } from '@/core/verdict/bound';
import type { Expected, NextMove } from '@/core/verdict/next-move';
import type { Deed } from '@/server/services/next-deed';
import { ActionButton } from '@/ui/calibration/ActionButton';

interface DeedsProps {
  readonly id: string;
  readonly setupId: string;
  readonly verdict: Verdict;
  readonly isCheck: boolean;
  readonly isKept: boolean;
  /** The one thing to do next, which is dark. */
  readonly deed: Deed;
  /** Set where a pen drew the sheet and knife against pen is not known: such a verdict is not kept. */
  readonly knifeHref: string | null;
}

const MOVE_WORDS: Readonly<Record<Exclude<NextMove, 'wider-limit'>, string>> = {
  'another-load': 'Another load helps most',
  'more-looks': 'Another look at every figure helps most',
  'correct-again': 'Another correction helps most',
};

/** What helps most, and what is to be expected of it. */
export function moveWords({ move, upperMm }: Expected, system: UnitSystem): string {
  if (move === 'wider-limit')
    return `More loads or looks here are not likely to tell. Work with a border or bleed of at least ${formatLength(upperMm, system)}, or change the limit.`;
  return `We cannot tell yet. ${MOVE_WORDS[move]}: it is likely to prove at most ${formatLength(upperMm, system)}.`;
}

/** Ways to keep a verdict, or to one about the knife. */
function Keep({ id, verdict, isCheck, isKept, deed, knifeHref }: DeedsProps) {
  if (deed === 'keep-pass')
    return (
      <ActionButton
        action="judge"
        calibrationId={id}
        words="Keep it in the history"
        isMain
        href={`/calibrations/${id}/save`}
      />
    );
  if (knifeHref)
    return (
      <Link className="btn btn-primary" href={knifeHref} prefetch={false}>
        Check the knife with its own sheet
      </Link>
    );
  if (verdict === 'pass' || isCheck || isKept || deed === 'another-load') return null;
  return <ActionButton action="judge" calibrationId={id} words="Keep this verdict" isMain={verdict === 'fail'} />;
}

/** What can be done about a verdict; the one to do next is dark. */
export function VerdictDeeds(props: DeedsProps) {
  const { id, setupId, verdict, isCheck, deed } = props;
  const link = (href: string, words: string, isMain: boolean) => (
    <Link className={`btn ${isMain ? 'btn-primary' : 'btn-quiet'}`} href={href} prefetch={false}>
      {words}
    </Link>
  );
  const here = `/calibrations/${id}`;
  return (
    <p className="d-flex flex-wrap gap-2">
      <Keep {...props} />
      {(verdict === 'cannot_tell' || isCheck || deed === 'another-load') && (
        <ActionButton
          action="another-sheet"
          calibrationId={id}
          words="Another load on a fresh sheet"
          isMain={deed === 'another-load'}
          href={`${here}/print`}
        />
      )}
      {verdict !== 'pass' && link(`${here}/settings`, 'Correct again from these readings', deed === 'correct-again')}
      {deed === 'more-looks' && link(`${here}/read?look=fine&again=2`, 'Read every figure once more', true)}
      {deed === 'wider-limit' && link(`/setups/${setupId}`, 'Change the limit', true)}
      {link(`${here}/map`, 'See the map', false)}
      {link(`${here}/confirm?read=again`, 'Read again', false)}
    </p>
  );
}
