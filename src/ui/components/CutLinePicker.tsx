import { useId } from 'react';
import { CUT_LINE_WORDS, CUT_LINES, type CutLine } from '@/core/shop/cut-lines';

interface Props {
  readonly chosen: CutLine;
  /** Whether the page has room for combs, which show a rubbed slit or a pen's line. */
  readonly isCombOffered: boolean;
  readonly onChoose: (line: CutLine) => void;
}

/** How the cut lines will be seen: it decides between wedges and combs. */
export function CutLinePicker({ chosen, isCombOffered, onChoose }: Props) {
  const id = useId();
  const shown = isCombOffered ? chosen : 'weeded';
  return (
    <div className="mb-3">
      <label htmlFor={id} className="form-label">
        How will the cut be seen?
      </label>
      <select
        id={id}
        className="form-select"
        value={shown}
        aria-describedby={`${id}-words`}
        onChange={(event) => {
          const line = CUT_LINES.find((l) => l === event.target.value);
          if (line) onChoose(line);
        }}
      >
        {CUT_LINES.map((line) => (
          <option key={line} value={line} disabled={line !== 'weeded' && !isCombOffered}>
            {CUT_LINE_WORDS[line].title}
          </option>
        ))}
      </select>
      <p id={`${id}-words`} className="quiet mb-0">
        {isCombOffered ? CUT_LINE_WORDS[shown].words : 'This page is too small for combs: strips are lifted out.'}
      </p>
    </div>
  );
}
