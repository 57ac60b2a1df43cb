import Link from 'next/link';
import { stationAtMm } from '@/core/target/roll-strip';
import { formatSize } from '@/core/units/length';
import type { RollFileKind } from '@/server/services/roll-files';
import { stripOf } from '@/server/services/rolls';
import { StationPicture } from '@/ui/roll/StationPicture';
import type { RollProps } from './roll-props';
import { PageHeading } from '@/ui/components/PageHeading';

interface FileWords {
  readonly kind: RollFileKind;
  readonly words: string;
}

const STRIP_FILES: readonly FileWords[] = [
  { kind: 'pages-pdf', words: 'Print: PDF, a page for each station, one after another without a gap' },
  { kind: 'long-pdf', words: 'Print: PDF, one long page' },
  { kind: 'queue-pdf', words: 'Print and cut in one queue: PDF, the cut in the shop\u2019s spot ink' },
  { kind: 'cut-hpgl', words: 'Cut: plotter commands (HPGL)' },
  { kind: 'cut-svg', words: 'Cut: SVG' },
  { kind: 'cut-dxf', words: 'Cut: DXF' },
];
const PIECE_FILES: readonly FileWords[] = [
  { kind: 'piece-pdf', words: 'The piece: PDF, the cut in the shop\u2019s spot ink' },
  { kind: 'piece-svg', words: 'The piece: SVG, ink and cut in two colours' },
];

/** What to print and cut, and how. */
export function StripPage({ record, system, nav }: RollProps) {
  const { roll } = record;
  const isPiece = roll.form === 'piece';
  const strip = stripOf(roll);
  const first = formatSize(stationAtMm(strip, 1), system);
  return (
    <>
      <PageHeading>
        {isPiece
          ? `Print the piece, copied ${roll.stations} times`
          : `Print and cut the strip of ${roll.stations} stations`}
      </PageHeading>
      {nav}
      <div className="two">
        <div className="bed stay">
          <StationPicture strip={strip} />
        </div>
        <div>
          <h2>Files</h2>
          <ul>
            {(isPiece ? PIECE_FILES : STRIP_FILES).map((f) => (
              <li key={f.kind}>
                <a href={`/rolls/${roll.id}/files/${f.kind}`} download>
                  {f.words}
                </a>
              </li>
            ))}
          </ul>
          <h2>How</h2>
          <ol className="steps">
            {isPiece ? (
              <>
                <li>{`Open the piece in the program. Its size must read ${formatSize(strip.widthMm, system)} by ${formatSize(strip.spacingMm, system)}; else type it.`}</li>
                <li>{`Let the program copy it ${roll.stations} times along the roll, no gap between.`}</li>
              </>
            ) : (
              <li>Print at actual size, pages directly after one another: fit to page off, margins 0.</li>
            )}
            <li>Register as the work itself will be: with its marks, by its origin, rewound or not.</li>
            <li>
              Let the print dry, then cut: first run with the tool up and a hand at stop. Hands off roll and rollers
              while marks are read or the machine pauses; follow your machine&rsquo;s manual and local rules.
            </li>
            <li>{`Weed the narrow strips${strip.hasDiscs ? ', and the rounds in the discs if you mean to scan,' : ''} when the machine stands still.`}</li>
            <li>{`Count stations from the leading edge: the first one\u2019s middle is ${first} from it.`}</li>
          </ol>
          <Link className="btn btn-primary" href={`/rolls/${roll.id}?look=read`} prefetch={false}>
            It is cut: read it
          </Link>
          {strip.hasDiscs && (
            <Link className="btn btn-quiet ms-2" href={`/rolls/${roll.id}?look=scan`} prefetch={false}>
              Scan the pieces
            </Link>
          )}
        </div>
      </div>
    </>
  );
}
