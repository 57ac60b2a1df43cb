import 'server-only';
import { createHash, randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import type { PageInput, StartCalibrationInput } from '@/contracts/inputs';
import { decideRoute, type RouteChoice } from '@/core/shop/decide-route';
import { layOutBlock, type Block, type BlockProblem } from '@/core/target/block';
import { isSheetName, sheetSize } from '@/core/units/sheet-size';
import { canonicalJson } from '@/core/target/canonical-json';
import { sheetCodeOf } from '@/core/target/sheet-code';
import { styleFor, type CutLine } from '@/core/shop/cut-lines';
import { defineSheet, GENERATOR_VERSION, stylesOf, type SheetDefinition } from '@/core/target/sheet-definition';
import { fail, ok, type Result } from '@/core/result';
import { formatSize, type UnitSystem } from '@/core/units/length';
import type { Database, Session } from '@/db/client';
import { findCalibration } from '@/db/queries/calibration';
import { findSetup, type SetupRow } from '@/db/queries/shop';
import { calibration, calibrationSheet } from '@/db/schema/calibration';
import { sheetDefinition, sheetFigure, sheetSpot } from '@/db/schema/sheet';
import { material } from '@/db/schema/shop';
import { now } from '../clock';
import { markTestProblem } from './mark-use';
import { markSpaceFor } from './setup-marks';
import { refusal, type Actor, type Refusal } from './actor';
import { strangerTo } from './own-shop';
import { readingScaleOf, unitSystemOf } from './reading-scale-of';
import { newSheetMarks } from './sheet-marks';
import { usualCutLine } from './usual-cut-line';

/** Every figure of a sheet as it is listed in the database. */
function figureRows({ liftOffs, discs, combs, wedges, roughs }: SheetDefinition) {
  const both = { axis: 'both' as const, ditherMm: 0 };
  return [
    ...[...liftOffs, ...discs].map(({ kind, setNo, spotNo, centre }) => ({ ...both, kind, setNo, spotNo, at: centre })),
    ...roughs.map(({ kind, spotNo, centre }) => ({ ...both, kind, setNo: 1, spotNo, at: centre })),
    ...combs.map(({ kind, setNo, spotNo, axis, centre }) => ({ kind, setNo, spotNo, axis, ditherMm: 0, at: centre })),
    ...wedges.map(({ kind, setNo, spotNo, axis, ditherMm, origin }) => ({
      ...{ kind, setNo, spotNo, axis, ditherMm },
      at: origin,
    })),
  ];
}

/** The stored definition of a block and kind: made once, found again by the hash of its content. */
async function storedDefinition(session: Session, definition: SheetDefinition): Promise<string> {
  const hash = createHash('sha256').update(canonicalJson(definition)).digest();
  const id = randomUUID();
  const inserted = await session
    .insert(sheetDefinition)
    .values({
      id,
      code: sheetCodeOf(hash),
      content: definition,
      contentSha256: hash,
      generatorVersion: GENERATOR_VERSION,
    })
    .onConflictDoNothing({ target: sheetDefinition.contentSha256 })
    .returning({ id: sheetDefinition.id });
  if (inserted.length === 0) {
    const [known] = await session
      .select({ id: sheetDefinition.id })
      .from(sheetDefinition)
      .where(eq(sheetDefinition.contentSha256, hash));
    if (!known) throw new Error('a sheet definition neither stored nor found');
    return known.id;
  }
  await session
    .insert(sheetSpot)
    .values(
      definition.spots.map((s) => ({ sheetDefinitionId: id, spotNo: s.spotNo, xMm: s.centre.x, yMm: s.centre.y })),
    );
  await session
    .insert(sheetFigure)
    .values(figureRows(definition).map(({ at, ...row }) => ({ ...row, sheetDefinitionId: id, xMm: at.x, yMm: at.y })));
  return id;
}

/** A known name has its known size, whatever was sent with it. */
const truePage = (page: PageInput): PageInput =>
  isSheetName(page.name) ? { name: page.name, ...sheetSize(page.name) } : page;

export const tooSmallWords = (name: string, problem: BlockProblem): string =>
  `A ${name} sheet is too small for a check sheet with these marks: it needs at least ${problem.neededWidthMm.toFixed(0)} x ${problem.neededLengthMm.toFixed(0)} mm.`;

/** A test of front against back needs pieces that can be lifted and turned over; everything else what the route allows. */
function sheetFor(
  row: SetupRow,
  kind: StartCalibrationInput['kind'],
  line: CutLine,
): Pick<RouteChoice, 'style' | 'sets'> {
  if (kind === 'two_faces') return { style: 'lift-off', sets: 1 };
  const { style, sets } = decideRoute(row.program, row.setup.family);
  return { style: styleFor(line, style), sets };
}

/** Why this check cannot be started on this setup, in words; null where it can. */
async function problemWith(
  database: Database,
  { setup, ...row }: SetupRow,
  input: StartCalibrationInput,
  system: UnitSystem,
): Promise<string | null> {
  const { toleranceMm: limitMm, family } = setup;
  if (input.toleranceMm > limitMm + 1e-9)
    return `Limit of this check: at most ${formatSize(limitMm, system)}, the limit of this printer + cutter. Change that limit on its page first.`;
  if (input.kind === 'two_faces' && family !== 'F6')
    return 'Front against back is measured on work that is printed on both sides.';
  return input.kind === 'mark_use' ? markTestProblem(database, { setup, ...row }, input) : null;
}

/** How the cut is best seen in a material, as far as the page has room for it. */
async function usualLine(database: Database, materialId: string, block: Block): Promise<CutLine> {
  const [row] = await database.select().from(material).where(eq(material.id, materialId));
  return row && stylesOf(block).includes('comb') ? usualCutLine(row) : 'weeded';
}

/** Begins a calibration with its first sheet. The id comes from the client: a retry finds the one already there. */
export async function startCalibration(
  database: Database,
  actor: Actor,
  input: StartCalibrationInput,
): Promise<Result<string, Refusal>> {
  const stranger = await strangerTo(database, actor, { setupId: input.setupId, materialId: input.materialId });
  if (stranger) return fail(stranger);
  if (await findCalibration(database, input.id)) return ok(input.id);
  const found = await findSetup(database, input.setupId);
  if (!found)
    return fail(refusal('This printer + cutter is not in the shop any more. Go back to the bench and choose another.'));
  const block = layOutBlock(truePage(input.page), markSpaceFor(found));
  if (!block.ok) return fail(refusal(tooSmallWords(input.page.name, block.error)));
  const isCheck = input.kind === 'quick' || input.kind === 'full';
  // A test beside a check compares cuts of one load: strips, of which two cuts fit on one sheet.
  const usual = isCheck ? await usualLine(database, input.materialId, block.value) : 'weeded';
  const cutLine = input.cutLine ?? usual;
  const { style, sets } = sheetFor(found, input.kind, cutLine);
  const problem = await problemWith(database, found, input, await unitSystemOf(database, actor));
  if (problem) return fail(refusal(problem));
  if (!stylesOf(block.value).includes(style))
    return fail(refusal(`A ${input.page.name} sheet is too small for combs. Take a larger sheet, or weed the strips.`));
  const checkKind = input.kind === 'full' ? 'full' : 'quick';
  const scale = input.scale ?? (await readingScaleOf(database, actor));
  const definition = defineSheet({ block: block.value, checkKind, style, sets, scale });
  await database.transaction(async (session) => {
    const definitionId = await storedDefinition(session, definition);
    await session.insert(calibration).values({
      id: input.id,
      marksInAcrossMm: input.marksIn?.acrossMm ?? null,
      marksInAlongMm: input.marksIn?.alongMm ?? null,
      setupId: input.setupId,
      materialId: input.materialId,
      sheetDefinitionId: definitionId,
      route: found.setup.route,
      cutLine: style === 'comb' ? cutLine : 'weeded',
      kind: input.kind,
      step: 'print',
      state: 'open',
      toleranceMm: input.toleranceMm,
      startedAt: now(),
      startedBy: actor.personId,
    });
    await session.insert(calibrationSheet).values({
      ...(await newSheetMarks(session)),
      calibrationId: input.id,
      sheetDefinitionId: definitionId,
      sheetNo: 1,
    });
  });
  return ok(input.id);
}
