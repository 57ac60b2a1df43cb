import fc from 'fast-check';
import { makeOutbox, type Outcome, type Parcel } from './outbox';

const settled = async (): Promise<void> => {
  for (let i = 0; i < 50; i++) await Promise.resolve();
};
const parcel = (id: string) => ({ id, kind: 'reading' as const, owner: 'set', label: `Spot ${id}`, payload: { id } });

function memory() {
  const kept = new Map<string, string>();
  return {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
  };
}

/** A server that answers as it is told to, and timers that run when they are let. */
function bench(storage = memory() as Pick<Storage, 'getItem' | 'setItem'> | null) {
  const answers: Outcome[] = [];
  const sent: Parcel[] = [];
  const timers: { work: () => void; delayMs: number }[] = [];
  const outbox = makeOutbox({
    storage,
    send: (p) => {
      sent.push(p);
      return Promise.resolve(answers.shift() ?? { kind: 'accepted', value: null });
    },
    later: (work, delayMs) => {
      const timer = { work, delayMs };
      timers.push(timer);
      return () => timers.splice(timers.indexOf(timer), 1);
    },
  });
  return { outbox, answers, sent, timers, storage };
}

const DOWN: Outcome = { kind: 'unreachable', message: 'The database has stopped' };

describe('an outbox', () => {
  it('forgets a parcel only when the server has it', async () => {
    const { outbox } = bench();
    outbox.post(parcel('1'));
    expect(outbox.state().parcels).toHaveLength(1);
    await settled();
    expect(outbox.state()).toEqual({ parcels: [], trouble: null });
  });

  it('keeps what could not be sent, says why, and sends it again by itself, later each time', async () => {
    const { outbox, answers, sent, timers } = bench();
    answers.push(DOWN, DOWN, DOWN);
    outbox.post(parcel('1'));
    await settled();
    expect(outbox.state()).toMatchObject({ parcels: [{ id: '1', refusedFor: null }], trouble: DOWN.message });
    const delays: number[] = [];
    for (let i = 0; i < 3; i++) {
      delays.push(timers[0]?.delayMs ?? 0);
      timers[0]?.work();
      await settled();
    }
    expect(delays).toEqual([2000, 4000, 8000]);
    expect(sent.map((p) => p.id)).toEqual(['1', '1', '1', '1']);
    expect(outbox.state()).toEqual({ parcels: [], trouble: null });
  });

  it('keeps what was refused with its reason until somebody discards it, and goes on with the rest', async () => {
    const { outbox, answers, sent } = bench();
    answers.push({ kind: 'refused', message: 'This check was cancelled' });
    outbox.post(parcel('1'));
    outbox.post(parcel('2'));
    await settled();
    expect(outbox.state().parcels).toMatchObject([{ id: '1', refusedFor: 'This check was cancelled' }]);
    outbox.retry();
    await settled();
    expect(sent.map((p) => p.id)).toEqual(['1', '2']);
    outbox.discard('1');
    expect(outbox.state().parcels).toEqual([]);
  });

  it('outlives the page', async () => {
    const first = bench();
    first.answers.push(DOWN);
    first.outbox.post(parcel('1'));
    await settled();
    const second = bench(first.storage);
    expect(second.outbox.state().parcels.map((p) => p.id)).toEqual(['1']);
    second.outbox.retry();
    await settled();
    expect(second.sent.map((p) => p.id)).toEqual(['1']);
    first.outbox.reread();
    expect(first.outbox.state().parcels).toEqual([]);
  });

  const full = (): void => {
    throw new Error('QuotaExceededError');
  };
  const broken: readonly (readonly [string, Pick<Storage, 'getItem' | 'setItem'> | null])[] = [
    ['there is none', null],
    ['it is full', { getItem: () => null, setItem: full }],
    ['it holds something else', { getItem: () => '{"no":1}', setItem: () => undefined }],
  ];
  it.each(broken)('works in the page alone where the store fails: %s', async (_, storage) => {
    const { outbox, sent, answers } = bench(storage);
    answers.push(DOWN);
    outbox.post(parcel('1'));
    outbox.post(parcel('2'));
    await settled();
    outbox.retry();
    await settled();
    expect(sent.map((p) => p.id)).toEqual(['1', '1', '2']);
    expect(outbox.state().parcels).toEqual([]);
  });

  it('loses nothing and sends in order, whatever the server does (property)', async () => {
    const answer = fc.constantFrom('accepted', 'refused', 'unreachable');
    await fc.assert(
      fc.asyncProperty(fc.array(answer, { maxLength: 30 }), fc.integer({ min: 1, max: 8 }), async (kinds, count) => {
        const { outbox, answers, sent } = bench();
        const accepted: string[] = [];
        outbox.onAccepted((p) => accepted.push(p.id));
        answers.push(
          ...kinds.map((kind): Outcome => (kind === 'accepted' ? { kind, value: 1 } : { kind, message: kind })),
        );
        const ids = Array.from({ length: count }, (_, i) => String(i));
        for (const id of ids) {
          outbox.post(parcel(id));
          await settled();
          outbox.retry();
          await settled();
          const { parcels } = outbox.state();
          const known = [...accepted, ...parcels.map((p) => p.id)].sort();
          expect(known).toEqual(ids.slice(0, Number(id) + 1).sort());
        }
        const firsts = [...new Set(sent.map((p) => p.id))];
        expect(firsts).toEqual([...firsts].sort());
        expect(accepted).toEqual([...accepted].sort());
      }),
      { numRuns: 200 },
    );
  });
});
