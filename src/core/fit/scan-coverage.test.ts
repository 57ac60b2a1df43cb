import { blockNamed } from '../target/block';
import { defineSheet } from '../target/sheet-definition';
import { coverOf, IS_LONG, randomError, readScanSet, TRIALS } from '../simulate/trials.testing';

const low = 0.93;

it.each([0, 0.5, Math.PI / 2])(
  'discs of one scan whose lamp shifts them all alike, travel at %p rad: at least nominal, the shift as well',
  (travelRad) => {
    const definition = defineSheet({ block: blockNamed('A4'), checkKind: 'full' });
    const scan = { sdMm: 0.008, shadowSdMm: 0.0144, travelRad };
    const cover = coverOf(84, TRIALS / 2, randomError, (truth, rng) =>
      readScanSet(definition, 1, truth, { ...scan, rng }),
    );
    for (const share of cover) expect(share).toBeGreaterThanOrEqual(IS_LONG ? 0.944 : low);
    // Without it nine discs would claim the shift along the travel to a third of its true doubt.
    const blind = coverOf(84, TRIALS / 2, randomError, (truth, rng) =>
      readScanSet(definition, 1, truth, { ...scan, rng }).map((r) => ({ ...r, shared: { key: 'scan', mm: 0 } })),
    );
    expect(Math.min(blind[0]!, blind[1]!)).toBeLessThan(0.6);
  },
);
