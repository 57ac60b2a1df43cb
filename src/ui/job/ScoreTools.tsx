import type { LineChoice } from '@/core/layout/job-draft';

export interface Tools {
  readonly lines: LineChoice;
  readonly scoreTool: number;
}

const CHOICES: readonly (readonly [LineChoice, string])[] = [
  ['all', 'scored, then cut, the machine changes the tool'],
  ['scored', 'only what is scored: I change the tool after it'],
  ['cut', 'only what is cut, after the scoring'],
];

interface Props {
  readonly tools: Tools;
  readonly onTools: (tools: Tools) => void;
}

/** Scored and cut lines want different tools: in one file where the machine holds both, else one file after the other. */
export function ScoreTools({ tools, onTools }: Props) {
  return (
    <fieldset>
      <legend className="form-label fs-6">Lines in this file</legend>
      {CHOICES.map(([lines, words]) => (
        <label key={lines} className="choice">
          <input
            type="radio"
            name="lines"
            checked={tools.lines === lines}
            onChange={() => {
              onTools({ ...tools, lines });
            }}
          />
          <span>{words}</span>
        </label>
      ))}
      {tools.lines === 'all' && (
        <>
          <label className="form-label" htmlFor="score-tool">
            Number of the tool that scores
          </label>
          <select
            id="score-tool"
            className="form-select mb-3"
            value={tools.scoreTool}
            onChange={(event) => {
              onTools({ ...tools, scoreTool: Number(event.target.value) });
            }}
          >
            {[1, 2, 3, 4, 5, 6, 7, 8].map((no) => (
              <option key={no} value={no}>
                {no}
              </option>
            ))}
          </select>
        </>
      )}
      <p className="caution">
        Between two tools the sheet stays loaded: a pause is not the end. Stop the machine before hands go near a tool,
        as its manual says; blades are sharp.
      </p>
    </fieldset>
  );
}
