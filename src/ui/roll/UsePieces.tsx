'use client';

import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import { v4 as uuid } from 'uuid';
import type { SaveStationInput } from '@/contracts/rolls';
import { isMeasured } from '@/core/scan/disc-measure';
import type { ScannedDisc } from '@/core/scan/combine-scans';
import type { RollStrip } from '@/core/target/roll-strip';
import { AXES } from '@/core/target/wedge';
import { keepStations } from '@/server/actions/roll';

interface Props {
  readonly rollId: string;
  readonly sides: RollStrip['sides'];
  readonly discs: readonly ScannedDisc[];
  readonly leftOut: ReadonlySet<string>;
}

type Told = Omit<SaveStationInput, 'id' | 'rollId'>;

/** What counts, two readings a disc. */
function toldBy({ sides, discs, leftOut }: Omit<Props, 'rollId'>): readonly Told[] {
  return discs.flatMap(({ key, state, acrossMm, alongMm }): readonly Told[] => {
    const [no, name] = key.split(' ');
    const side = sides.find((s) => s === name);
    if (!side || leftOut.has(key) || !isMeasured(state)) return [];
    return AXES.map((axis) => ({
      ...{ stationNo: Number(no), side, axis, method: 'scan', state: 'read' },
      readingMm: axis === 'across' ? acrossMm : alongMm,
    }));
  });
}

/** Takes what the scans tell into the roll's readings. */
export function UsePieces({ rollId, ...rest }: Props) {
  const router = useRouter();
  const told = toldBy(rest);
  const words = JSON.stringify(told);
  // The same readings sent twice, after an answer that got lost, are kept once.
  const sent = useRef<{ readonly words: string; readonly ids: readonly string[] }>({ words: '', ids: [] });
  const [isSending, setSending] = useState(false);
  const [refusal, setRefusal] = useState<string | null>(null);
  const keep = async (): Promise<void> => {
    setSending(true);
    setRefusal(null);
    if (sent.current.words !== words) sent.current = { words, ids: told.map(() => uuid()) };
    const { ids } = sent.current;
    try {
      const done = await keepStations({ readings: told.map((t, i) => ({ ...t, rollId, id: ids[i] })) });
      if (done.ok) router.push(`/rolls/${rollId}?look=drift`);
      else setRefusal(done.message);
    } catch {
      setRefusal('The shop\u2019s server does not answer. Nothing is lost: try again in a moment.');
    }
    setSending(false);
  };
  const count = told.length / 2;
  return (
    <>
      {refusal && (
        <p className="notice" role="alert">
          {refusal}
        </p>
      )}
      <button type="button" className="btn btn-primary" disabled={isSending || count === 0} onClick={() => void keep()}>
        {count === 1 ? 'Use this disc' : `Use these ${count} discs`}
      </button>
    </>
  );
}
