import 'server-only';
import { StoredScanReading } from '@/contracts/stored';
import { frontToBack, type FacePair } from '@/core/fit/front-to-back';
import type { ErrorMapFit } from '@/core/fit/fit-error-map';
import { fail, ok, type Result } from '@/core/result';
import { AXES } from '@/core/target/wedge';
import { worstCornerBounds, type Bounds } from '@/core/verdict/bound';
import type { Database } from '@/db/client';
import { refusal, type Actor, type Refusal } from './actor';
import { endedBefore, onOpenCheck } from './check-guard';
import { doneSets, type CalibrationRecord } from './record';
import { endTest } from './steps';

type Reading = CalibrationRecord['readings'][number];

/** A reading's own doubt and what its scan shares with others: between two faces nothing shared falls out. */
function doubtOf({ standardUncertaintyMm, raw }: Reading): number | null {
  const shared = StoredScanReading.safeParse(raw);
  return standardUncertaintyMm === null
    ? null
    : Math.hypot(standardUncertaintyMm, shared.success ? shared.data.sharedMm : 0);
}

/** Figures of the newest cut sheet that are read on both faces. */
export function facePairs(record: CalibrationRecord): readonly FacePair[] {
  const set = doneSets(record).at(-1);
  const find = (methods: readonly Reading['method'][], spotNo: number, axis: Reading['axis']) =>
    methods
      .map((method) =>
        record.readings.find(
          (r) => r.cutSetId === set?.id && r.method === method && r.spotNo === spotNo && r.axis === axis,
        ),
      )
      .find((r) => r !== undefined);
  return record.definition.liftOffs.flatMap(({ spotNo, centre }) =>
    AXES.flatMap((axis): FacePair[] => {
      const front = find(['scan', 'rim'], spotNo, axis);
      const back = find(['scan_back', 'rim_back'], spotNo, axis);
      if (!front || !back) return [];
      const [frontMm, backMm] = [front.displacementMm, back.displacementMm];
      const [uFront, uBack] = [doubtOf(front), doubtOf(back)];
      if (frontMm === null || backMm === null || uFront === null || uBack === null) return [];
      return [
        { id: front.id, axis, at: centre, frontMm, backMm, frontUncertaintyMm: uFront, backUncertaintyMm: uBack },
      ];
    }),
  );
}

export interface BackAgainstFront {
  readonly fit: ErrorMapFit;
  readonly bounds: Bounds;
}

/** How the back's print lies against the front's; null while too little is read on both faces. */
export function backAgainstFront(record: CalibrationRecord): BackAgainstFront | null {
  const fit = frontToBack(facePairs(record), record.corners);
  return fit.ok ? { fit: fit.value, bounds: worstCornerBounds(fit.value, record.corners) } : null;
}

/** Ends the measurement. Its readings stay; the machine is as it was. */
export async function keepFaces(
  database: Database,
  actor: Actor,
  input: { readonly id: string; readonly calibrationId: string },
): Promise<Result<string, Refusal>> {
  return onOpenCheck(database, actor, { ...input, replay: endedBefore('two_faces') }, async (session, record) => {
    if (!backAgainstFront(record)) return fail(refusal('Read discs on both faces first.'));
    await endTest(session, input.calibrationId);
    return ok(input.calibrationId);
  });
}
