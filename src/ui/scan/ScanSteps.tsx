import type { CutShape } from '@/core/target/coded-figure';

const FLAT = 'Lay the sheet face down and flat, the lid closed: 300 dots an inch, gray, nothing sharpened.';
const TWICE =
  'Scan it twice if you can, the second time turned by a quarter or by half: the lamp\u2019s shadow then falls out.';
const PHOTOGRAPH =
  'No scanner here? Photograph the whole sheet flat on the mat, from straight above and in even light: it is then measured to a few hundredths of a mm.';

/** What to do with the sheet before it is scanned. */
const STEPS: Readonly<Record<CutShape, readonly string[]>> = {
  hole: [
    'Lift out the strips and the small round pieces of this cut. Account for every piece.',
    FLAT,
    TWICE,
    PHOTOGRAPH,
  ],
  line: [
    'The circle in each ring must be dark: let a pen\u2019s ink dry; rub a soft pencil or a marker over slits and wipe the rest off.',
    FLAT,
    'One scan is enough. A second one with the sheet turned by a quarter evens out the scanner\u2019s travel.',
  ],
  edge: [
    'Lift out every disc. Account for every piece.',
    'Lay them ink down on the scanner\u2019s glass, not touching another, and dark card over them. Which way each is turned does not matter.',
    'Close the lid: 300 dots an inch, gray, nothing sharpened.',
    'Scan twice if you can, the second time with every disc turned by about a quarter or by half: the lamp\u2019s shadow then falls out.',
  ],
};

export function ScanSteps({ cutShape }: { readonly cutShape: CutShape }) {
  return (
    <ol className="scan-steps">
      {STEPS[cutShape].map((words) => (
        <li key={words}>{words}</li>
      ))}
    </ol>
  );
}
