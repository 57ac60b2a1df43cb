import 'server-only';
import { blockSize } from '@/core/layout/block-size';
import { rollerWords } from '@/core/layout/layout-findings';
import { materialMarkAdvice } from '@/core/shop/material-marks';
import { preflight, type Preflight, type PreflightFacts } from '@/core/shop/preflight';
import type { Database } from '@/db/client';
import { now } from '../clock';
import { correctionInForce } from './job-correction';
import { leadingMarkOf, type JobView } from './job-view';

const HOUR_MS = 3_600_000;

function factsOf({ row, facts, draft, material, locked, print }: JobView): PreflightFacts {
  const page = locked?.content.page ?? draft.page;
  const dryAt = print?.dryAt;
  return {
    family: row.setup.family,
    route: facts.route,
    page: { name: draft.page.name, widthMm: page.widthMm },
    block: blockSize(locked?.content.placements ?? [], page),
    mode: [row.printMode.name, row.printMode.tray, row.printMode.quality].filter(Boolean).join(', '),
    isBorderless: row.printMode.isBorderless,
    marks: { kind: facts.page.marks.kind, insetMm: draft.insetMm },
    leadingMark: facts.hasOwnMarks ? 'the end with the words' : leadingMarkOf(row),
    markProblems: [],
    material: materialMarkAdvice(material),
    program: row.program,
    spareFrontMm: draft.spareFrontMm,
    spareRearMm: draft.spareRearMm,
    dryInHours: dryAt ? Math.max(0, (dryAt.getTime() - now().getTime()) / HOUR_MS) : 0,
  };
}

/** What to look over before a job is printed. */
export const jobPrintLooks = (view: JobView): Preflight => preflight(factsOf(view), 'print');

/** How a job is loaded, step by step, with rollers where they come near the marks. */
export function jobCutLooks(view: JobView): readonly string[] {
  const { looks } = preflight(factsOf(view), 'cut');
  const { facts, draft } = view;
  const rollers = rollerWords(facts.layout.rollers, { kind: facts.page.marks.kind, insetMm: draft.insetMm });
  return rollers ? [...looks, rollers] : looks;
}

/** How the sheet lay when the machine was last corrected: how a job is loaded unless something else is said. */
export async function usualTurn(database: Database, view: JobView): Promise<number> {
  return (await correctionInForce(database, view.row))?.load.turnDeg ?? 0;
}
