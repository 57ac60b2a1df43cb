import { CUT_LINE_WORDS, CUT_LINES, type CutLine } from '@/core/shop/cut-lines';

interface CutLineProps {
  readonly chosen: CutLine;
  readonly isCombOffered: boolean;
  readonly onChoose: (line: CutLine) => void;
}

/** How the cut lines will be seen: it decides between wedges and combs. */
export function CutLinePicker({ chosen, isCombOffered, onChoose }: CutLineProps) {
  const shown = isCombOffered ? chosen : 'weeded';
  return (
    <fieldset className="mb-3">
      <legend className="h2">How will the cut be seen?</legend>
      {CUT_LINES.map((line) => (
        <label key={line} className={`choice ${shown === line ? 'chosen' : ''}`}>
          <input
            type="radio"
            name="cut-line"
            checked={shown === line}
            disabled={line !== 'weeded' && !isCombOffered}
            onChange={() => {
              onChoose(line);
            }}
          />
          <span>
            <strong>{CUT_LINE_WORDS[line].title}</strong>
            <span className="quiet d-block">{CUT_LINE_WORDS[line].words}</span>
          </span>
        </label>
      ))}
      {!isCombOffered && <p className="quiet mb-0">This page is too small for combs.</p>}
    </fieldset>
  );
}
