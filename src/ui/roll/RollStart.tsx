'use client';

import { v4 as uuid } from 'uuid';
import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import { leastWidthMm, STRIP_SIDES, type StripForm, type StripSide } from '@/core/target/roll-strip';
import { formatSize, type UnitSystem } from '@/core/units/length';
import { beginRoll } from '@/server/actions/roll';
import { FigureField } from '../components/FigureField';
import { LengthField } from '../components/LengthField';

export interface RollStartView {
  readonly setupId: string;
  readonly toleranceMm: number;
  readonly pageWidthMm: number;
  readonly materials: readonly {
    readonly id: string;
    readonly name: string;
    readonly finish: string;
    readonly printableWidthMm: number | null;
  }[];
  readonly system: UnitSystem;
  /** A run that is asked for by where one came from: one section that is to be confirmed. */
  readonly asked: AskedRun | null;
}

export interface AskedRun {
  readonly materialId: string;
  readonly widthMm: number;
  readonly spacingMm: number;
  readonly stations: number;
  readonly toleranceMm: number;
}

type Kind = 'strip' | 'run';

const KINDS: readonly {
  readonly kind: Kind;
  readonly form: StripForm;
  readonly title: string;
  readonly words: string;
}[] = [
  {
    kind: 'strip',
    form: 'strip',
    title: 'Test strip',
    words: 'numbered stations one after another, printed and cut as one job',
  },
  {
    kind: 'strip',
    form: 'piece',
    title: 'One small piece, copied',
    words:
      'for machines that register once: the program\u2019s own copy function makes the strip, stations are counted from the leading edge',
  },
  {
    kind: 'run',
    form: 'piece',
    title: 'A run as it goes',
    words: 'every nth piece is measured while the work is made; told when to stop',
  },
];

const TITLE_OF: Readonly<Record<string, string>> = Object.fromEntries(
  KINDS.map((k) => [`${k.kind} ${k.form}`, k.title]),
);

interface Sizes {
  readonly materialId: string;
  readonly widthMm: number | null;
  readonly spacingMm: number | null;
  readonly stations: number | null;
  readonly everyNth: number | null;
  readonly sides: readonly StripSide[];
  readonly toleranceMm: number | null;
}

const USUAL = { spacingMm: 250, stations: 20, everyNth: 5, sides: ['left', 'right'] } as const;

/** Of a section that is to be confirmed so many pieces are measured, about. */
const LOOKS_AT_SECTION = 10;

function usualSizes({ materials, pageWidthMm, toleranceMm, asked }: RollStartView): Sizes {
  if (asked) return { ...USUAL, ...asked, everyNth: Math.max(1, Math.floor(asked.stations / LOOKS_AT_SECTION)) };
  const [first] = materials;
  return { ...USUAL, materialId: first?.id ?? '', widthMm: first?.printableWidthMm ?? pageWidthMm, toleranceMm };
}

const STRIP_WORDS = {
  ...{ width: 'Printable width', spacing: 'From station to station' },
  ...{ count: 'Stations', sides: 'Where stations have figures' },
};
const RUN_WORDS = {
  ...{ width: 'Width of the work', spacing: 'From piece to piece' },
  ...{ count: 'Pieces', sides: 'Where a piece is measured' },
};

interface SizesProps {
  readonly view: RollStartView;
  readonly isRun: boolean;
  readonly sizes: Sizes;
  readonly onChange: (sizes: Sizes) => void;
}

/** Material, how wide, how far apart, how many, and at which sides. */
function RollSizes({ view, isRun, sizes, onChange }: SizesProps) {
  const { system } = view;
  const usual = usualSizes(view);
  const words = isRun ? RUN_WORDS : STRIP_WORDS;
  const { spacingMm, stations, sides } = sizes;
  const take =
    <K extends keyof Sizes>(name: K) =>
    (value: Sizes[K]): void => {
      onChange({ ...sizes, [name]: value });
    };
  return (
    <>
      <div className="d-flex flex-wrap gap-3">
        <div>
          <label htmlFor="roll-material" className="form-label">
            Material
          </label>
          <select
            id="roll-material"
            className="form-select mb-3"
            value={sizes.materialId}
            onChange={(e) => {
              take('materialId')(e.target.value);
            }}
          >
            {view.materials.map((m) => (
              <option key={m.id} value={m.id}>{`${m.name}, ${m.finish}`}</option>
            ))}
          </select>
        </div>
        <LengthField
          label={words.width}
          system={system}
          initialMm={usual.widthMm ?? undefined}
          onChange={take('widthMm')}
        />
        <LengthField
          label={words.spacing}
          system={system}
          initialMm={usual.spacingMm ?? undefined}
          onChange={take('spacingMm')}
        />
        <FigureField label={words.count} unit="" initial={usual.stations ?? undefined} onChange={take('stations')} />
        {isRun && (
          <FigureField
            label="Measure every"
            unit="th"
            initial={usual.everyNth ?? undefined}
            onChange={take('everyNth')}
          />
        )}
        <LengthField
          label="Allowed error"
          system={system}
          initialMm={usual.toleranceMm ?? undefined}
          onChange={take('toleranceMm')}
        />
      </div>
      {spacingMm !== null && stations !== null && (
        <p className="quiet">{`${formatSize(spacingMm * stations, system)} of roll. Figures beyond the strip are predictions, and are marked so. Make the strip as long as you can spare.`}</p>
      )}
      <fieldset className="mb-3">
        <legend className="h2">{words.sides}</legend>
        {STRIP_SIDES.map((side) => (
          <label key={side} className="me-3 py-2">
            <input
              type="checkbox"
              className="me-1"
              checked={sides.includes(side)}
              onChange={(e) => {
                take('sides')(STRIP_SIDES.filter((s) => (s === side ? e.target.checked : sides.includes(s))));
              }}
            />
            {side}
          </label>
        ))}
        <span className="quiet d-block">
          {`Left and right tell a turn of the roll from its walk.${isRun ? '' : ` Figures take ${formatSize(leastWidthMm(['left']), system)} of the width each.`}`}
        </span>
      </fieldset>
    </>
  );
}

const firstKind = ({ asked }: RollStartView) =>
  KINDS.find(({ kind }) => kind === (asked ? 'run' : 'strip')) ?? { kind: 'strip' as const, form: 'strip' as const };

/** Which roll is looked at: a strip, a copied piece or the work itself, how far apart, and at which sides. */
export function RollStart({ view }: { readonly view: RollStartView }) {
  const router = useRouter();
  const [chosen, setChosen] = useState(() => firstKind(view));
  const [sizes, setSizes] = useState<Sizes>(() => usualSizes(view));
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  const [id] = useState(() => uuid());
  const isRun = chosen.kind === 'run';

  const begin = (): void => {
    startTransition(async () => {
      const done = await beginRoll({
        ...{ id, setupId: view.setupId, kind: chosen.kind, form: chosen.form },
        ...{ ...sizes, everyNth: isRun ? sizes.everyNth : 1 },
      });
      if (done.ok) router.push(`/rolls/${done.value}`);
      else setProblem(done.message);
    });
  };

  return (
    <section aria-label="Begin a roll">
      <fieldset className="mb-3">
        <legend className="h2">What is looked at?</legend>
        {KINDS.map((k) => (
          <label
            key={k.title}
            className={`choice ${TITLE_OF[`${chosen.kind} ${chosen.form}`] === k.title ? 'chosen' : ''}`}
          >
            <input
              type="radio"
              name="roll-kind"
              checked={chosen.kind === k.kind && chosen.form === k.form}
              onChange={() => {
                setChosen(k);
              }}
            />
            <span>
              <strong>{k.title}</strong>
              <span className="quiet d-block">{k.words}</span>
            </span>
          </label>
        ))}
      </fieldset>
      <RollSizes view={view} isRun={isRun} sizes={sizes} onChange={setSizes} />
      <button type="button" className="btn btn-primary" disabled={isBusy || sizes.sides.length === 0} onClick={begin}>
        {isRun ? 'Begin the log' : 'Make the strip'}
      </button>
      <p role="alert">{problem}</p>
    </section>
  );
}
