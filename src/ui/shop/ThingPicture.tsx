import type { ThingKind } from '@/contracts/shop';
import { FILE_DIRECTIONS, isPerpendicular, machineToFileAxes, type FileDirection } from '@/core/geometry/file-axes';
import { apply, inverseOf } from '@/core/geometry/affine';
import type { FeedDirection } from '@/core/geometry/load';
import type { ActsOn } from '@/core/setting/machine-setting';
import { markPowers, type MarkScheme } from '@/core/shop/marks';
import { materialMarkAdvice, type MarkGround } from '@/core/shop/material-marks';
import { growthWords } from '@/core/shop/material-growth';
import { MARK_USES } from '@/core/shop/words';
import { isoA } from '@/core/units/sheet-size';
import { MarkPicture } from './MarkPicture';
import { SettingPicture } from './SettingPicture';
import type { Values } from './thing-specs';

interface Props {
  readonly kind: ThingKind;
  readonly values: Values;
  /** Of a setting: how its machine is fed. */
  readonly feed: FeedDirection;
}

/** What a thing's description means, drawn on the sheet or said in a sentence. */
export function ThingPicture({ kind, values, feed }: Props) {
  switch (kind) {
    case 'setting':
      return (
        <SettingPicture
          actsOn={values.actsOn as ActsOn}
          sense={values.sense === -1 ? -1 : 1}
          isKnown={values.sense !== null}
          feed={feed}
        />
      );
    case 'markScheme':
      return (
        <div className="bed p-3">
          <MarkPicture scheme={values as unknown as MarkScheme} page={isoA(4)} heightPx={420} />
          <p className="quiet mb-0">On an A4 sheet: marks dark, the room that must stay empty round them tinted.</p>
        </div>
      );
    case 'cutter':
      return <CutterPicture values={values} />;
    case 'material': {
      const { verdict, todo } = materialMarkAdvice(values as unknown as MarkGround);
      return (
        <div className="notice">
          <h2>{`Marks printed on it ${verdict}`}</h2>
          <ol className="steps">
            {todo.map((t) => (
              <li key={t}>{t}</li>
            ))}
          </ol>
          {growthWords(values as unknown as Parameters<typeof growthWords>[0]).map((w) => (
            <p key={w}>{w}</p>
          ))}
          <p className="quiet">
            A calibration on plain paper tells the machine&rsquo;s error, not whether marks on this material are read.
          </p>
        </div>
      );
    }
    case 'person':
    case 'printer':
    case 'printMode':
    case 'program':
      return null;
  }
}

const isDirection = (value: unknown): value is FileDirection => FILE_DIRECTIONS.some((d) => d === value);

/** The bed as one looks along the feed: where the file's zero lies, which way x and y of the file run, what marks are used for. */
function CutterPicture({ values }: { readonly values: Values }) {
  const { fileAcross: across, fileAlong: along } = values;
  const use = MARK_USES.find((u) => u === values.markUse) ?? 'unknown';
  const { putsRight, remains } = markPowers(use);
  const isDrawn = isDirection(across) && isDirection(along) && isPerpendicular({ across, along });
  return (
    <div>
      {isDrawn ? <FileAxesPicture across={across} along={along} /> : <p>Across and along must run at right angles.</p>}
      <p>
        {putsRight.length > 0
          ? `Its marks put right: ${putsRight.join(', ')}. What remains for a calibration: ${remains.join(', ') || 'the steady part of all of it'}.`
          : 'What it makes of its marks is not known. A sheet printed with its marks alone moved tells it: start it from the printer + cutter\u2019s own page.'}
      </p>
    </div>
  );
}

function FileAxesPicture({ across, along }: { readonly across: FileDirection; readonly along: FileDirection }) {
  const back = inverseOf(machineToFileAxes({ across, along }));
  const x = apply(back, { x: 1, y: 0 });
  const y = apply(back, { x: 0, y: 1 });
  const zero = { x: -40 * (x.x + y.x), y: -50 * (x.y + y.y) };
  const arrow = (d: { x: number; y: number }, name: string) => {
    const length = Math.abs(d.x) > 0.5 ? 60 : 80;
    const tip = { x: zero.x + d.x * length, y: zero.y + d.y * length };
    return (
      <g stroke="var(--ink)" strokeWidth="2" fill="none">
        <line x1={zero.x} y1={-zero.y} x2={tip.x} y2={-tip.y} />
        <circle cx={tip.x} cy={-tip.y} r="3" fill="var(--ink)" />
        <text
          x={tip.x + d.x * 11}
          y={-tip.y - d.y * 12 + 4}
          fontSize="11"
          stroke="none"
          fill="var(--ink)"
          textAnchor="middle"
        >
          {name}
        </text>
      </g>
    );
  };
  return (
    <svg
      viewBox="-75 -85 150 170"
      className="drawing"
      style={{ maxHeight: 320 }}
      role="img"
      aria-label="The file on the bed"
    >
      <rect x="-75" y="-85" width="150" height="170" fill="var(--bed)" />
      <rect x="-50" y="-62" width="100" height="124" fill="var(--sheet)" stroke="var(--ink-2)" />
      <text x="0" y="-70" textAnchor="middle" fontSize="9" fill="var(--ink-2)">
        leading edge
      </text>
      {arrow(x, 'x')}
      {arrow(y, 'y')}
      <rect x={zero.x - 3.5} y={-zero.y - 3.5} width="7" height="7" fill="var(--ink)" />
      <text x={zero.x < 0 ? -62 : 62} y={-zero.y + 3} fontSize="9" textAnchor="middle" fill="var(--ink)">
        zero
      </text>
    </svg>
  );
}
