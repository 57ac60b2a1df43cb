import 'server-only';
import type { JobDraft } from '@/core/layout/job-draft';
import type { PageFacts } from '@/core/layout/lay-out';
import type { LayoutFacts } from '@/core/layout/layout-findings';
import { decideRoute } from '@/core/shop/decide-route';
import type { MarkScheme } from '@/core/shop/marks';
import type { Route } from '@/core/shop/words';
import { OWN_MARK_MM, USUAL_MARKS } from '@/core/target/block';
import type { SetupRow } from '@/db/queries/shop';
import type { material } from '@/db/schema/shop';
import { schemeOf, unprintableOf } from './setup-marks';

type Material = typeof material.$inferSelect;

/** Our own marks of route D: four squares in the corners, with the usual room about them. */
const OWN_SCHEME: MarkScheme = {
  kind: 'four_corners',
  insetMm: USUAL_MARKS.insetMm,
  sizeMm: OWN_MARK_MM,
  keepOutMm: 5,
  edgeMinMm: 10,
};

/** What a job needs to know of its setup. */
export interface JobFacts {
  readonly page: PageFacts;
  readonly layout: LayoutFacts;
  readonly route: Route;
  /** Why it cannot be laid out here; null where it can. */
  readonly onlyProgram: string | null;
  readonly hasOwnMarks: boolean;
}

export function jobFacts(row: SetupRow, own: Pick<Material, 'printableWidthMm'>): JobFacts {
  const { route } = decideRoute(row.program, row.setup.family);
  const hasOwnMarks = route === 'D';
  const marks = hasOwnMarks ? OWN_SCHEME : schemeOf(row);
  const { printer, printMode, cutter } = row;
  const none = { leftMm: 0, rightMm: 0, topMm: 0, bottomMm: 0 };
  const margins = printMode.isBorderless
    ? none
    : {
        leftMm: printer.marginLeftMm,
        rightMm: printer.marginRightMm,
        topMm: printer.marginTopMm,
        bottomMm: printer.marginBottomMm,
      };
  const { rollerWidthMm, rollerFromEdgeMm } = cutter;
  return {
    page: { margins, marks },
    layout: {
      family: row.setup.family,
      modePage: { name: printMode.page, widthMm: printMode.pageWidthMm, lengthMm: printMode.pageLengthMm },
      isBorderless: printMode.isBorderless,
      unprintableMm: unprintableOf(row),
      machineMarks: row.programScheme ? row.cutterScheme : null,
      rollers:
        rollerWidthMm === null || rollerFromEdgeMm === null
          ? null
          : { widthMm: rollerWidthMm, fromEdgeMm: rollerFromEdgeMm },
      sensorMm: cutter.spareRearMm,
      printableWidthMm: own.printableWidthMm,
      largest: { widthMm: row.program?.largestWidthMm ?? null, lengthMm: row.program?.largestLengthMm ?? null },
    },
    route,
    onlyProgram:
      route === 'B' || route === 'E'
        ? 'This program traces its own cut lines: it lays the job out itself. Red Plumb checks the page and keeps the fingerprint of the saved file.'
        : null,
    hasOwnMarks,
  };
}

/** A draft to begin with: the print mode's page, the marks as they are used, nothing on it yet. */
export function firstDraft(row: SetupRow, own: Material, facts: JobFacts): JobDraft {
  const isRoll = own.form === 'roll' || own.printableWidthMm !== null;
  const { printMode, cutter } = row;
  return {
    laysOut: facts.onlyProgram ? 'program' : 'here',
    form: isRoll ? 'roll' : 'sheet',
    page: {
      name: isRoll ? own.name : printMode.page,
      widthMm: isRoll ? (own.printableWidthMm ?? printMode.pageWidthMm) : printMode.pageWidthMm,
      lengthMm: isRoll ? 2000 : printMode.pageLengthMm,
    },
    insetMm: facts.page.marks.insetMm,
    backInsetMm: row.setup.family === 'F6' ? facts.page.marks.insetMm : null,
    isMirrored: row.setup.family === 'F5',
    gapMm: 2,
    spareFrontMm: cutter.spareFrontMm,
    spareRearMm: cutter.spareRearMm,
    items: [],
    artBox: facts.onlyProgram
      ? {
          widthMm: Math.max(1, printMode.pageWidthMm - 80),
          lengthMm: Math.max(1, printMode.pageLengthMm - 80),
          leftMm: 40,
          topMm: 40,
        }
      : null,
    edge: { kind: 'border', mm: 1 },
    yieldShare: 0.95,
    warmingK: 0,
  };
}
