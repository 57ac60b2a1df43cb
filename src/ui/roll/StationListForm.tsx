'use client';

import { v4 as uuid } from 'uuid';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import { parseStationList } from '@/formats/csv/station-list';
import type { StripSide } from '@/core/target/roll-strip';
import { unitWord, type TypedUnit } from '@/core/units/length';
import { MOST_LISTED } from '@/contracts/rolls';
import { keepStations } from '@/server/actions/roll';
import { ListText } from '../components/ListText';

interface Props {
  readonly rollId: string;
  readonly sides: readonly StripSide[];
  /** Stations, or pieces that are due. */
  readonly stationNos: readonly number[];
  readonly word: 'station' | 'piece';
  /** What a number without a unit is in. */
  readonly typedUnit: TypedUnit;
}

/** A table to be filled in: every station and side, nothing read. */
const emptyList = ({ sides, stationNos, word }: Props): string =>
  [
    `${word},side,across,along`,
    ...stationNos.slice(0, MOST_LISTED).flatMap((no) => sides.map((side) => `${no},${side},,`)),
  ].join('\n');

/** Readings along a roll as a list: typed, pasted from a spreadsheet or dropped in as a file; kept whole or not at all. */
export function StationListForm(props: Props) {
  const { rollId, sides, word, typedUnit } = props;
  const router = useRouter();
  const [text, setText] = useState('');
  // The same list sent twice, after an answer that got lost, is kept once.
  const sent = useRef<{ readonly text: string; readonly ids: readonly string[] }>({ text: '', ids: [] });
  const [isSending, setSending] = useState(false);
  const [refusal, setRefusal] = useState<string | null>(null);
  const { readings, problems } = parseStationList(text, sides, typedUnit);
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
      <ListText
        label={`One line a ${word} and side: how far the cut is off the print, across (right is plus) and along (away from the leading edge is plus), in ${unitWord(typedUnit)} unless another unit is typed`}
        rows={8}
        text={text}
        empty={emptyList(props)}
        emptyWords={`Fill in the ${word}s`}
        placeholder={emptyList({ ...props, stationNos: props.stationNos.slice(0, 3) })}
        onText={setText}
      />
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
