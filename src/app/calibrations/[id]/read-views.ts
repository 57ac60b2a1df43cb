import { viewTurnOf, type TurnDeg } from '@/core/geometry/load';
import type { UnitSystem } from '@/core/units/length';
import type { CalibrationRecord, CutSet } from '@/server/services/record';
import type { ReadView } from '@/ui/read/ReadStation';
import { referenceGapsMm } from '@/core/target/reference-gaps';
import { codedOf, discsOf, mainMethod } from '@/server/services/looks';
import type { RoundView } from '@/ui/read/RoundStation';
import type { RoughView } from '@/ui/read/RoughStation';
import { scanFigures, scanKey } from '@/core/scan/scan-figures';
import type { Axis } from '@/core/target/wedge';
import type { ScanView } from '@/ui/scan/scan-view';
import { slotKey, type Kept } from '@/ui/read/slot';

/** What was read of a set in one round of looks. */
export function keptOf(record: CalibrationRecord, set: CutSet, lookNo = 1): Record<string, Kept> {
  const rows = lookNo === 1 ? record.readings : record.repeats;
  const own = rows.filter((r) => r.cutSetId === set.id && r.repeatNo === lookNo);
  return Object.fromEntries(own.map((r) => [slotKey(r), { state: r.state, readingMm: r.readingMm }]));
}

/** How the sheet lies in the hand as it comes off the machine. */
const turnInHand = (record: CalibrationRecord, set: CutSet): TurnDeg =>
  viewTurnOf(set.load, record.setupRow.cutter.feeds);

const pictureHref = (record: CalibrationRecord, set: CutSet): string | null =>
  record.setupRow.isSimulated
    ? `/calibrations/${record.calibration.id}/picture?sheet=${set.sheetNo}&sets=${record.cutSets.length}`
    : null;

export interface Asked {
  readonly system: UnitSystem;
  readonly isBlind: boolean;
  readonly lookNo: number;
  readonly start: ReadView['start'];
  readonly next: ReadView['next'];
}

export function readViewOf(record: CalibrationRecord, set: CutSet, asked: Asked): ReadView {
  return {
    cutSetId: set.id,
    setNo: set.setNo,
    definition: record.definition,
    code: record.code,
    turnDeg: turnInHand(record, set),
    leftOut: set.leftOut,
    kept: keptOf(record, set, asked.lookNo),
    firstStartMm: randomStep(),
    pictureHref: pictureHref(record, set),
    ...asked,
  };
}

const randomStep = (): number => Math.round((Math.random() - 0.5) * 20) / 20;

/** Discs of a set. A print on the far side, or the back of a turned disc, is seen with left and right changed. */
export function rimViewOf(
  record: CalibrationRecord,
  set: CutSet,
  asked: Asked,
  face: 'front' | 'back' = 'front',
): RoundView {
  const isBack = face === 'back';
  const picture = pictureHref(record, set);
  return {
    method: isBack ? 'rim_back' : 'rim',
    cutSetId: set.id,
    discs: record.definition.liftOffs,
    gapsMm: referenceGapsMm(record.block, true),
    turnDeg: turnInHand(record, set),
    isSeenThrough: isBack || record.setupRow.setup.family === 'F5',
    kept: keptOf(record, set, asked.lookNo),
    firstStart: { x: randomStep(), y: randomStep() },
    pictureHref: picture && isBack ? `${picture}&face=back` : picture,
    ...asked,
  };
}

/** The coded discs of a set on the scanner; what the eye read is told only where it need not stay blind. */
export function scanViewOf(
  record: CalibrationRecord,
  set: CutSet,
  asked: Pick<Asked, 'system' | 'isBlind' | 'next'> & Pick<ScanView, 'others'>,
  face: ScanView['face'] = 'front',
): ScanView {
  const { system, isBlind, next, others } = asked;
  const figures = scanFigures(record.definition);
  const eye = (spotNo: number, axis: Axis): number | null => {
    const row = record.readings.find(
      (r) => r.cutSetId === set.id && r.method === mainMethod(record) && r.spotNo === spotNo && r.axis === axis,
    );
    return isBlind ? null : (row?.displacementMm ?? null);
  };
  return {
    calibrationId: record.calibration.id,
    cutSetId: set.id,
    discs: figures.flatMap((figure) => {
      const own = codedOf(record, set).find((f) => scanKey(f) === figure.key);
      if (!own) return [];
      const { spotNo } = own;
      return [
        { key: figure.key, spotNo, figure, eyeMm: { across: eye(spotNo, 'across'), along: eye(spotNo, 'along') } },
      ];
    }),
    figures,
    code: record.code,
    others,
    roughHref:
      set.setNo === 1 && record.definition.roughs.length > 0
        ? `/calibrations/${record.calibration.id}/read?look=rough`
        : null,
    face,
    isFaceTold: record.calibration.kind === 'two_faces',
    cutShape: figures[0]?.cutShape ?? 'hole',
    system,
    standin: record.setupRow.isSimulated
      ? { href: `/calibrations/${record.calibration.id}/scan-picture`, sheetNo: set.sheetNo, face }
      : null,
    next,
  };
}

/** Discs beside a set's wedges, on the sheet. */
export function wallViewOf(record: CalibrationRecord, set: CutSet, asked: Asked): RoundView {
  return {
    method: 'wall',
    cutSetId: set.id,
    discs: discsOf(record, set),
    gapsMm: [],
    turnDeg: turnInHand(record, set),
    isSeenThrough: false,
    kept: keptOf(record, set, asked.lookNo),
    firstStart: { x: randomStep(), y: randomStep() },
    pictureHref: pictureHref(record, set),
    ...asked,
  };
}

export function roughViewOf(record: CalibrationRecord, set: CutSet, next: RoughView['next']): RoughView {
  return {
    cutSetId: set.id,
    roughs: record.definition.roughs,
    turnDeg: turnInHand(record, set),
    kept: keptOf(record, set),
    next,
    pictureHref: pictureHref(record, set),
  };
}
