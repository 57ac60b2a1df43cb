import type { Analysis } from '@/server/services/analysis';
import { movedWords } from '@/server/services/settings-at-cut';

interface Props {
  readonly analysis: Pick<Analysis, 'atCut'>;
  /** Whether a verdict stands beside it, which such a change holds back. */
  readonly isVerdict?: boolean;
}

/** Settings that stand elsewhere than when the sheet was cut, and loads that cannot be compared for that. */
export function MovedSince({ analysis: { atCut }, isVerdict = false }: Props) {
  if (atCut.moved.length === 0 && atCut.leftOutLoads.length === 0) return null;
  const { leftOutLoads } = atCut;
  return (
    <div className="notice">
      {atCut.moved.length > 0 && (
        <p className="mb-0">
          {`${atCut.moved.map(movedWords).join(' ')} `}
          {isVerdict
            ? 'This verdict is for the value at the cut. Set it back and enter it on the setup page, or cut another load.'
            : 'The map is for the value at the cut. The values to set start from there.'}
        </p>
      )}
      {leftOutLoads.length > 0 && (
        <p className="mb-0">
          {`Load ${leftOutLoads.join(' and ')} was cut with other settings, and which way + goes is not known. It does not count here.`}
        </p>
      )}
    </div>
  );
}
