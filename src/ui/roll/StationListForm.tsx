'use client';

import { v4 as uuid } from 'uuid';
import { useRouter } from 'next/navigation';
import { useId, useRef, useState } from 'react';
import { parseStationList } from '@/formats/csv/station-list';
import { MOST_CHARACTERS } from '@/formats/csv/reading-list';
import type { StripSide } from '@/core/target/roll-strip';
import type { UnitSystem } from '@/core/units/length';
import { keepStations } from '@/server/actions/roll';

interface Props {
  readonly rollId: string;
  readonly sides: readonly StripSide[];
  /** Stations, or pieces that are due. */
  readonly stationNos: readonly number[];
  readonly word: 'station' | 'piece';
  readonly system: UnitSystem;
}

const MOST_LISTED = 200;

/** A table to be filled in: every station and side, nothing read. */
const emptyList = ({ sides, stationNos, word }: Props): string =>
  [
    `${word},side,across,along`,
    ...stationNos.slice(0, MOST_LISTED).flatMap((no) => sides.map((side) => `${no},${side},,`)),
  ].join('\n');

/** Readings along a roll as a list: typed, pasted from a spreadsheet or dropped in as a file; kept whole or not at all. */
export function StationListForm(props: Props) {
  const { rollId, sides, word, system } = props;
  const id = useId();
  const router = useRouter();
  const [text, setText] = useState('');
  // The same list sent twice, after an answer that got lost, is kept once.
  const sent = useRef<{ readonly text: string; readonly ids: readonly string[] }>({ text: '', ids: [] });
  const [isSending, setSending] = useState(false);
  const [refusal, setRefusal] = useState<string | null>(null);
  const { readings, problems } = parseStationList(text, sides, system);
  const isEmpty = text.trim() === '';

  const keep = async (): Promise<void> => {
    setSending(true);
    setRefusal(null);
    if (sent.current.text !== text) sent.current = { text, ids: readings.map(() => uuid()) };
    const { ids } = sent.current;
    try {
      const done = await keepStations({
        readings: readings.map(({ stationNo, side, axis, readingMm }, i) => ({
          ...{ id: ids[i] ?? uuid(), rollId, stationNo, side, axis, readingMm },
          ...{ method: 'list', state: 'read' },
        })),
      });
      if (done.ok) router.push(`/rolls/${rollId}?look=drift`);
      else setRefusal(done.message);
    } catch {
      setRefusal('The shop\u2019s server does not answer. Nothing is lost: keep the list again in a moment.');
    }
    setSending(false);
  };

  return (
    <section aria-label="Readings as a list">
      <label htmlFor={id} className="form-label">
        {`One line a ${word} and side: how far the cut is off the print, across (right is plus) and along (away from the leading edge is plus)`}
      </label>
      <textarea
        id={id}
        className="form-control figures"
        rows={8}
        spellCheck={false}
        value={text}
        placeholder={emptyList({ ...props, stationNos: props.stationNos.slice(0, 3) })}
        onChange={(event) => {
          setText(event.target.value);
        }}
      />
      <p className="d-flex gap-3 flex-wrap align-items-center mt-2">
        <button
          type="button"
          className="btn btn-quiet"
          onClick={() => {
            setText(emptyList(props));
          }}
        >
          {`Fill in the ${word}s`}
        </button>
        <span>
          <label htmlFor={`${id}-file`} className="form-label mb-0 me-2">
            or a CSV file
          </label>
          <input
            id={`${id}-file`}
            type="file"
            accept=".csv,.tsv,.txt,text/csv"
            onChange={(event) => {
              const [file] = event.target.files ?? [];
              if (file)
                void file
                  .slice(0, MOST_CHARACTERS + 1)
                  .text()
                  .then(setText);
            }}
          />
        </span>
      </p>
      {!isEmpty &&
        problems.slice(0, 8).map((p) => (
          <p key={`${p.line} ${p.field} ${p.words}`} className="notice" role="alert">
            {`Line ${p.line}, ${p.field}: ${p.words}`}
          </p>
        ))}
      {refusal && (
        <p className="notice" role="alert">
          {refusal}
        </p>
      )}
      <button
        type="button"
        className="btn btn-primary"
        disabled={isSending || problems.length > 0 || readings.length === 0}
        onClick={() => void keep()}
      >
        {readings.length === 1 ? 'Keep this reading' : `Keep these ${readings.length} readings`}
      </button>
    </section>
  );
}
