import 'server-only';
import type { RunAdvice } from '@/core/drift/run-advice';
import { halfWidthOf, type RollDrift } from '@/core/drift/roll-drift';
import { errorAtMm } from '@/core/drift/roll-section';
import { formatLength, type UnitSystem } from '@/core/units/length';
import type { RollRecord } from './roll-read';

export interface AdviceWords {
  readonly kind: 'go-on' | 'watch' | 'stop' | 'held';
  readonly title: string;
  readonly words: string;
}

const metres = (mm: number): string => `${(mm / 1000).toFixed(1)} m`;

/** What a run is told, with its reason, in the words of the shop. */
export function adviceWords(advice: RunAdvice, system: UnitSystem): AdviceWords {
  const mm = (value: number): string => formatLength(value, system);
  switch (advice.kind) {
    case 'nothing-read':
      return { kind: 'go-on', title: 'Measure the first piece', words: 'Nothing has been measured yet.' };
    case 'over':
      return advice.isHeld
        ? {
            kind: 'held',
            title: 'It held: every piece measured is within what is allowed',
            words: `The worst is out by ${mm(advice.worstMm)}. Register the next section as this one was.`,
          }
        : {
            kind: 'stop',
            title: `It did not hold: out from ${metres(advice.firstOutMm ?? 0)} on`,
            words: `The worst is out by ${mm(advice.worstMm)}. Look at Drift: what is steady is keyed in; for the rest cut shorter sections.`,
          };
    case 'go-on':
      return advice.reason === 'too-early'
        ? {
            kind: 'go-on',
            title: 'Go on',
            words: `The last piece is within what is allowed. After ${advice.wanted} more readings each way it can be foretold where the run will leave it.`,
          }
        : {
            kind: 'go-on',
            title: 'Go on to the end',
            words: `At the end of the run it will be out by less than ${mm(advice.errorAtEndMm)}, 95 % sure.`,
          };
    case 'watch':
      return advice.reason === 'near'
        ? {
            kind: 'watch',
            title: 'Watch: measure the next piece soon',
            words: `The last piece is out by ${mm(advice.worstMm)}, near to what is allowed; too little is measured to foretell the rest.`,
          }
        : {
            kind: 'watch',
            title: `Watch: may be out from ${metres(advice.outAtMm)} on`,
            words: `At the end of the run it may be out by ${mm(advice.errorAtEndMm)}. Go on for now, and plan to register anew before ${metres(advice.outAtMm)}.`,
          };
    case 'stop':
      return advice.reason === 'out'
        ? {
            kind: 'stop',
            title: 'Stop: a piece is out',
            words: `The last piece is out by ${mm(advice.worstMm)}. Stop at the next gap, register anew, and begin a new log.`,
          }
        : {
            kind: 'stop',
            title: 'Stop and register anew',
            words: `Before the next piece that is due it may be out by ${mm(advice.errorAtNextMm)}. Stop at the next gap and register anew.`,
          };
  }
}

/** What the roll comes to, in one line: how far out it is at its far end, and how the worst part is called. */
export function headlineOf({ roll, values }: RollRecord, drift: RollDrift, system: UnitSystem): string {
  const halfWidthMm = halfWidthOf(values);
  const { across, along } = errorAtMm(drift, drift.lengthMm, halfWidthMm);
  const worst = Math.max(across, along);
  const where = across > along ? 'across' : 'along';
  const reach = (drift.lengthMm / 1000).toFixed(1);
  return worst <= roll.toleranceMm
    ? `Within ${formatLength(worst, system)} as far as ${reach} m`
    : `May be out by ${formatLength(worst, system)} ${where} at ${reach} m`;
}
