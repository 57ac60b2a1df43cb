import type { BorderLook, PieceReading } from '@/core/piece/piece-reading';
import type { Pixel } from '@/core/scan/gray';
import { formatLength, type UnitSystem } from '@/core/units/length';
import type { PiecePhotoState } from './use-piece-photo';

interface Props {
  readonly photo: PiecePhotoState;
  readonly system: UnitSystem;
}

/** Ground that is shown round the piece, as a share of its size. */
const ROOM_SHARE = 0.12;

interface Box {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** The part of the picture that the piece lies in. */
function boxOf(looks: readonly BorderLook[], factor: number): Box {
  const [xs, ys] = [looks.map(({ cut }) => cut.x / factor), looks.map(({ cut }) => cut.y / factor)];
  const [left, top] = [Math.min(...xs), Math.min(...ys)];
  const [width, height] = [Math.max(...xs) - left, Math.max(...ys) - top];
  const room = ROOM_SHARE * Math.max(width, height);
  return { left: left - room, top: top - room, width: width + 2 * room, height: height + 2 * room };
}

const pathOf = (points: readonly Pixel[], factor: number): string =>
  `M${points.map((p) => `${(p.x / factor).toFixed(1)} ${(p.y / factor).toFixed(1)}`).join('L')}Z`;

/** Where the cut and the print's edge were found, over the photograph; places that count are drawn across the border. */
function Found({ reading, factor }: { readonly reading: PieceReading; readonly factor: number }) {
  const { looks } = reading;
  return (
    <>
      {looks.map(
        ({ cut, print, isUsed }, i) =>
          print &&
          isUsed && (
            <line
              key={i}
              x1={cut.x / factor}
              y1={cut.y / factor}
              x2={print.x / factor}
              y2={print.y / factor}
              stroke="var(--scan-good)"
              strokeWidth="1"
              vectorEffect="non-scaling-stroke"
            />
          ),
      )}
      <path
        d={pathOf(
          looks.map(({ cut }) => cut),
          factor,
        )}
        fill="none"
        stroke="var(--plumb-on-picture)"
        strokeWidth="2"
        strokeDasharray="6 3"
        vectorEffect="non-scaling-stroke"
      />
    </>
  );
}

/** The photographed piece with what was found on it, and its four borders beside it. */
export function PiecePicture({ photo: { preview, reading, file }, system }: Props) {
  if (!preview) return <p className="bed quiet">The picture comes as soon as it is read.</p>;
  const { width, height, factor, href } = preview;
  const box = reading ? boxOf(reading.looks, factor) : { left: 0, top: 0, width, height };
  const borders = reading && {
    top: reading.borders.topMm,
    left: reading.borders.leftMm,
    right: reading.borders.rightMm,
    bottom: reading.borders.bottomMm,
  };
  return (
    <figure className="mb-2">
      <svg
        className="scan-picture"
        viewBox={`${box.left} ${box.top} ${box.width} ${box.height}`}
        role="img"
        aria-label={`The photograph ${file.name}${reading ? ', the cut dashed, the border between cut and print hatched' : ''}`}
      >
        <image href={href} width={width} height={height} />
        {reading && <Found reading={reading} factor={factor} />}
      </svg>
      {borders && (
        <figcaption className="d-flex flex-wrap column-gap-3">
          {Object.entries(borders).map(([side, mm]) => (
            <span key={side} className="text-nowrap">
              {side} <span className="figures">{formatLength(mm, system)}</span>
            </span>
          ))}
          <span className="quiet text-nowrap">{`each to ${formatLength(reading.borderSdMm, system)}`}</span>
        </figcaption>
      )}
    </figure>
  );
}
