'use client';

import { useState, useTransition } from 'react';
import { IMPORT_KINDS, IMPORT_WORDS, MOST_IMPORT_LETTERS, type ImportKind, type ImportLook } from '@/contracts/import';
import { importTakenBack, tableTaken } from '@/server/actions/import';
import { ListText } from '../components/ListText';
import { ImportPreview } from './ImportPreview';

interface Props {
  /** Heads of an empty table of each kind, as it is given out here. */
  readonly heads: Readonly<Record<ImportKind, string>>;
}

function KindPicker({ kind, onKind }: { readonly kind: ImportKind; readonly onKind: (kind: ImportKind) => void }) {
  return (
    <fieldset>
      <legend className="h2">What it holds</legend>
      {IMPORT_KINDS.map((k) => (
        <label key={k} className="choice">
          <input
            type="radio"
            name="kind"
            checked={k === kind}
            onChange={() => {
              onKind(k);
            }}
          />
          <span>{IMPORT_WORDS[k]}</span>
        </label>
      ))}
    </fieldset>
  );
}

function DayOrder({ isDayFirst, onChange }: { isDayFirst: boolean; onChange: (isDayFirst: boolean) => void }) {
  return (
    <div className="mb-3">
      <label className="form-label" htmlFor="day-order">
        03/04/2026 means
      </label>
      <select
        id="day-order"
        className="form-select"
        style={{ maxWidth: '16rem' }}
        value={isDayFirst ? 'day' : 'month'}
        onChange={(event) => {
          onChange(event.target.value === 'day');
        }}
      >
        <option value="day">the third of April</option>
        <option value="month">the fourth of March</option>
      </select>
    </div>
  );
}

/** A table from another tool: shown as it is understood, then kept whole or not at all. */
export function ImportTool({ heads }: Props) {
  const [kind, setKind] = useState<ImportKind>('daily-checks');
  const [text, setText] = useState('');
  const [isDayFirst, setDayFirst] = useState(true);
  const [look, setLook] = useState<ImportLook | null>(null);
  const [told, setTold] = useState<string | null>(null);
  const [isBusy, startTransition] = useTransition();
  const ask = (isKept: boolean): void => {
    startTransition(async () => {
      const done = await tableTaken({ what: kind, text, isDayFirst, isKept });
      setTold(done.ok ? null : done.message);
      if (done.ok) setLook(done.value);
    });
  };
  const change = (work: () => void) => {
    work();
    setLook(null);
    setTold(null);
  };
  const takeBack = (ids: readonly string[]): void => {
    startTransition(async () => {
      const done = await importTakenBack({ ids });
      if (done.ok) setLook(null);
      setTold(done.ok ? 'Taken back: they count no more, and stay in the record.' : done.message);
    });
  };
  return (
    <div className="two">
      <div>
        <KindPicker
          kind={kind}
          onKind={(k) => {
            change(() => {
              setKind(k);
            });
          }}
        />
        <ListText
          label="The table"
          help="Pasted from a spreadsheet, or a file: separated by tab, semicolon, comma or stroke; point or comma as the decimal sign; units in the first line, such as left mm or left (in)."
          rows={10}
          most={MOST_IMPORT_LETTERS}
          text={text}
          empty={`${heads[kind]}\n`}
          emptyWords="Begin with the names of the columns"
          placeholder={heads[kind]}
          onText={(words) => {
            change(() => {
              setText(words);
            });
          }}
        />
        <DayOrder
          isDayFirst={isDayFirst}
          onChange={(is) => {
            change(() => {
              setDayFirst(is);
            });
          }}
        />
        <button
          type="button"
          className="btn btn-primary"
          disabled={isBusy || text.trim() === ''}
          onClick={() => {
            ask(false);
          }}
        >
          Look at it
        </button>
        <p role="status">{told}</p>
      </div>
      {look && (
        <ImportPreview
          look={look}
          isBusy={isBusy}
          onKeep={() => {
            ask(true);
          }}
          onTakeBack={
            kind === 'daily-checks'
              ? () => {
                  takeBack(look.kept);
                }
              : null
          }
        />
      )}
    </div>
  );
}
