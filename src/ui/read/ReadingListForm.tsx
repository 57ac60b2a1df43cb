'use client';

import type { FineMethod } from '@/core/reading/methods';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import { v4 as uuid } from 'uuid';
import { AXES, type Axis } from '@/core/target/wedge';
import type { ReadingScale } from '@/core/target/reading-scale';
import { formatReading } from '@/core/units/length';
import { parseReadingList, type ListedReading } from '@/formats/csv/reading-list';
import { keepReadingList } from '@/server/actions/calibration';
import { ListText } from '../components/ListText';
import { judgedList } from './reading-list-view';

interface Figure {
  readonly spotNo: number;
  readonly axis: Axis;
}

interface Props {
  readonly cutSetId: string;
  readonly method: FineMethod;
  readonly lookNo: number;
  readonly figures: readonly Figure[];
  readonly reachMm: number;
  /** Unit of the numbers on the sheet. */
  readonly scale: ReadingScale;
  /** Where to go once the list is kept. */
  readonly next: string;
}

/** A table to be filled in: every spot, nothing read. */
function emptyList(figures: readonly Figure[]): string {
  const spots = [...new Set(figures.map((f) => f.spotNo))];
  return ['spot,across,along', ...spots.map((s) => `${s},,`)].join('\n');
}

function keepWords(readings: number, problems: number): string {
  if (problems > 0 && readings > 0) return 'Put right what is marked first';
  return readings === 1 ? 'Keep this reading' : `Keep these ${readings} readings`;
}

interface PreviewProps {
  readonly figures: readonly Figure[];
  readonly readings: readonly ListedReading[];
  readonly scale: ReadingScale;
}

/** What will be kept, spot by spot. */
function ListPreview({ figures, readings, scale }: PreviewProps) {
  const spots = [...new Set(figures.map((f) => f.spotNo))];
  const words = (spotNo: number, axis: Axis): string => {
    const found = readings.find((r) => r.spotNo === spotNo && r.axis === axis);
    return found ? formatReading(found.readingMm, scale, true) : '\u2013';
  };
  return (
    <table className="plain" aria-label="What will be kept">
      <thead>
        <tr>
          <th>spot</th>
          {AXES.map((axis) => (
            <th key={axis}>{axis}</th>
          ))}
        </tr>
      </thead>
      <tbody>
        {spots.map((spotNo) => (
          <tr key={spotNo}>
            <td>{spotNo}</td>
            {AXES.map((axis) => (
              <td key={axis} className="figures">
                {words(spotNo, axis)}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Readings as a list: typed, pasted from a spreadsheet or dropped in as a file; kept whole or not at all. */
export function ReadingListForm({ cutSetId, method, lookNo, figures, reachMm, scale, next }: Props) {
  const router = useRouter();
  const [text, setText] = useState('');
  // The same list sent twice, after an answer that got lost, is kept once.
  const sent = useRef<{ readonly text: string; readonly ids: readonly string[] }>({ text: '', ids: [] });
  const [isSending, setSending] = useState(false);
  const [refusal, setRefusal] = useState<string | null>(null);
  const { readings, problems } = judgedList(parseReadingList(text, scale), figures, reachMm);
  const isEmpty = text.trim() === '';

  const keep = async (): Promise<void> => {
    setSending(true);
    setRefusal(null);
    if (sent.current.text !== text) sent.current = { text, ids: readings.map(() => uuid()) };
    const { ids } = sent.current;
    try {
      const done = await keepReadingList({
        readings: readings.map(({ spotNo, axis, readingMm }, i) => ({
          ...{ id: ids[i] ?? uuid(), cutSetId, spotNo, axis, method, repeatNo: lookNo, readingMm },
          state: 'read' as const,
          startedAtMm: 0,
        })),
      });
      if (done.ok) router.push(next);
      else setRefusal(done.message);
    } catch {
      setRefusal('The shop\u2019s server does not answer. Nothing is lost: keep the list again in a moment.');
    }
    setSending(false);
  };

  return (
    <div className="two">
      <div>
        <ListText
          label="One line a spot: spot, across, along"
          help={`Tab, semicolon or comma between columns; decimal point or comma. Lengths are in ${scale} unless the head says otherwise, as "across (in)". Leave out what was not read.`}
          rows={12}
          text={text}
          empty={emptyList(figures)}
          emptyWords="Fill in the spots"
          placeholder={emptyList(figures)}
          onText={setText}
        />
      </div>
      <div>
        {!isEmpty && <ListPreview figures={figures} readings={readings} scale={scale} />}
        {!isEmpty &&
          problems.map((p) => (
            <p key={`${p.line} ${p.field}`} className="notice" role="alert">
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
          {keepWords(readings.length, problems.length)}
        </button>
      </div>
    </div>
  );
}
