import type { Point } from '../geometry/affine';
import { inkFromMm, type DiscCut, type DiscFigure } from './disc';
import { LIFT_OFF_CLEAR_MM, LIFT_OFF_DISC_MM, LIFT_OFF_MIDDLE_MM, type LiftOffFigure } from './lift-off';
import type { SheetDefinition } from './sheet-definition';

/** What shows the cut of a coded figure: that of a disc, or the edge of the piece that was lifted out with it. */
export type CutShape = DiscCut | 'edge';

/** A printed round with a ring of dots that says which it is, and a circle cut about the same middle. */
export interface CodedFigure {
  readonly setNo: 1 | 2;
  readonly spotNo: number;
  readonly centre: Point;
  readonly codeNo: number;
  /** Outside of the printed round, mm, and where its ink begins: 0 where it is solid. */
  readonly radiusMm: number;
  readonly inkFromMm: number;
  readonly cutShape: CutShape;
  readonly cutRadiusMm: number;
}

/** No coded figure shows a farther shift than this. */
export const SCAN_REACH_MM = 3;

const ofDisc = (disc: DiscFigure): CodedFigure => {
  const { setNo, spotNo, centre, codeNo, radiusMm, cut, holeRadiusMm } = disc;
  return {
    ...{ setNo, spotNo, centre, codeNo, radiusMm, inkFromMm: inkFromMm(disc) },
    ...{ cutShape: cut, cutRadiusMm: holeRadiusMm },
  };
};

const ofLiftOff = ({ setNo, spotNo, centre, codeNo }: LiftOffFigure): readonly CodedFigure[] =>
  codeNo === undefined
    ? []
    : [
        {
          ...{ setNo, spotNo, centre, codeNo, radiusMm: LIFT_OFF_DISC_MM, inkFromMm: LIFT_OFF_MIDDLE_MM },
          ...{ cutShape: 'edge' as const, cutRadiusMm: LIFT_OFF_CLEAR_MM },
        },
      ];

/** Everything on a sheet that a scan can measure, of both sets. */
export const codedFigures = ({
  discs,
  liftOffs,
}: Pick<SheetDefinition, 'discs' | 'liftOffs'>): readonly CodedFigure[] => [
  ...discs.map(ofDisc),
  ...liftOffs.flatMap(ofLiftOff),
];

export const codedFigureOf = (
  definition: Pick<SheetDefinition, 'discs' | 'liftOffs'>,
  setNo: number,
  spotNo: number,
): CodedFigure | undefined => codedFigures(definition).find((f) => f.setNo === setNo && f.spotNo === spotNo);
