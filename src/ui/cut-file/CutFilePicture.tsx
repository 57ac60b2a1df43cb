import type { Affine, Point } from '@/core/geometry/affine';
import { apply } from '@/core/geometry/affine';
import type { DrawnLine, GroupBy, Survey } from '@/workers/cut-file.client';
import { exaggerationFor } from '../components/exaggeration';
import { wholeBox, type Role } from './cut-file-move';

interface Props {
  readonly survey: Survey;
  readonly by: GroupBy;
  readonly roles: Readonly<Record<string, Role>>;
  /** Which role moves, and how. */
  readonly moving: Role;
  readonly move: Affine<'page', 'page'> | null;
  readonly centre: Point<'page'>;
}

const INK = { stays: 'var(--ink)', cut: 'var(--plumb)', marks: 'var(--ink-2)' } as const;

function exaggerated(map: Affine<'page', 'page'>, by: number): Affine<'page', 'page'> {
  return {
    xx: 1 + by * (map.xx - 1),
    xy: by * map.xy,
    yx: by * map.yx,
    yy: 1 + by * (map.yy - 1),
    tx: by * map.tx,
    ty: by * map.ty,
  };
}

const pathOf = (line: DrawnLine, map: Affine<'page', 'page'> | null): string =>
  line.points
    .map((p, i) => {
      const q = map ? apply(map, p) : p;
      return `${i === 0 ? 'M' : 'L'}${q.x.toFixed(3)} ${(-q.y).toFixed(3)}`;
    })
    .join('');

/** The drawing as it was read: art in ink, what is cut dashed in red, and where it will go. */
export function CutFilePicture({ survey, by, roles, moving, move, centre }: Props) {
  const box = wholeBox(survey);
  const width = Math.max(1, box.right - box.left);
  const height = Math.max(1, box.top - box.bottom);
  const margin = 0.05 * Math.max(width, height);
  const roleOf = (line: DrawnLine): Role => roles[by === 'colour' ? line.colour : line.layer] ?? 'stays';
  const hair = Math.max(width, height) / 400;
  const farthest = move ? Math.max(...survey.lines.flatMap((l) => l.points.map((p) => gap(apply(move, p), p))), 0) : 0;
  const by_ = exaggerationFor(farthest, Math.max(width, height));
  const shown = move && exaggerated(move, by_);
  return (
    <figure className="m-0">
      <svg
        viewBox={`${box.left - margin} ${-box.top - margin} ${width + 2 * margin} ${height + 2 * margin}`}
        className="w-100"
        style={{ maxHeight: '70vh' }}
        role="img"
        aria-label="The drawing, what is to be cut dashed, and where the correction takes it"
      >
        <rect
          x={box.left}
          y={-box.top}
          width={width}
          height={height}
          fill="var(--sheet)"
          stroke="var(--rule)"
          strokeWidth={hair}
        />
        {survey.lines.map((line, i) => {
          const role = roleOf(line);
          return (
            <g key={i} fill="none" strokeWidth={role === 'cut' ? 1.6 * hair : hair} stroke={INK[role]}>
              <path d={pathOf(line, null)} opacity={role === moving && shown ? 0.35 : 1} />
              {role === moving && shown && (
                <path
                  d={pathOf(line, shown)}
                  strokeDasharray={role === 'cut' ? `${5 * hair} ${3 * hair}` : undefined}
                />
              )}
            </g>
          );
        })}
        <path
          d={`M${centre.x - 6 * hair} ${-centre.y}h${12 * hair}M${centre.x} ${-centre.y - 6 * hair}v${12 * hair}`}
          stroke="var(--ink-2)"
          strokeWidth={hair}
        />
      </svg>
      {shown && farthest > 0 && (
        <figcaption className="quiet">
          {by_ > 1 ? `The move is drawn ${by_} times too large.` : 'The move is drawn as it is.'}
        </figcaption>
      )}
    </figure>
  );
}

const gap = (a: Point<'page'>, b: Point<'page'>): number => Math.hypot(a.x - b.x, a.y - b.y);
