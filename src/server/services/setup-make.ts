import 'server-only';
import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import type { NewSetupInput } from '@/contracts/shop';
import { NO_ERROR } from '@/core/geometry/error-parameters';
import { decideRoute } from '@/core/shop/decide-route';
import { usualLimitsMm } from '@/core/shop/limits';
import { MARK_KIND_WORDS } from '@/core/shop/mark-kinds';
import { settingKit, type SettingTemplate } from '@/core/shop/setting-kits';
import type { Family } from '@/core/shop/words';
import { fail, ok, type Result } from '@/core/result';
import { seededRng, seedFrom } from '@/core/math/random';
import { layOutBlock } from '@/core/target/block';
import { markSpaceOf } from '@/core/shop/marks';
import type { Database, Session } from '@/db/client';
import { findCutters, findMarkSchemes, findMaterials, findPrinters, findPrograms, findSetup } from '@/db/queries/shop';
import { cutter, markScheme, printer, printMode, program, setup, simulatedSetup } from '@/db/schema/machines';
import { machineSetting, settingValue } from '@/db/schema/settings';
import { material, person } from '@/db/schema/shop';
import { now } from '../clock';
import { refusal, type Actor, type Refusal } from './actor';
import { strangerIn } from './own-shop';
import { tooSmallWords } from './start';

/** Rolls come out towards the one at the machine, mats go in away. */
const feedsOf = (family: Family): 'away' | 'towards' =>
  ['F2', 'F3', 'F4', 'F5', 'F9'].includes(family) ? 'towards' : 'away';

const USUAL_DOT_MM = 25.4 / 600;

/** A name that is not taken yet in this shop: "My cutter", then "My cutter 2". */
function freeName(wanted: string, taken: readonly string[]): string {
  const isTaken = (name: string): boolean => taken.some((t) => t.toLowerCase() === name.toLowerCase());
  if (!isTaken(wanted)) return wanted;
  for (let i = 2; ; i++) if (!isTaken(`${wanted} ${i}`)) return `${wanted} ${i}`;
}

async function schemeFor(session: Session, shopId: string, kind: NewSetupInput['markKind']): Promise<string> {
  const known = (await findMarkSchemes(session, shopId)).find((s) => s.kind === kind);
  if (known) return known.id;
  const id = randomUUID();
  const { title, sizeMm, insetMm, keepOutMm, edgeMinMm, leadingMark, readingOrder } = MARK_KIND_WORDS[kind];
  const figures = { sizeMm, insetMm, keepOutMm, edgeMinMm, leadingMark, readingOrder };
  await session.insert(markScheme).values({ id, shopId, name: title, kind, ...figures });
  return id;
}

async function storeSettings(
  session: Session,
  actor: Actor,
  owner: { cutterId: string } | { programId: string },
  templates: readonly SettingTemplate[],
): Promise<readonly { readonly id: string; readonly value: number }[]> {
  const made: { id: string; value: number }[] = [];
  for (const [position, { unitSize, pressThis, notThat, ...rest }] of templates.entries()) {
    const id = randomUUID();
    const value = rest.unit === 'nominal_measured' ? (unitSize ?? 0) : 0;
    await session.insert(machineSetting).values({
      id,
      ...owner,
      position,
      ...rest,
      unitSize: unitSize ?? null,
      pressThis: pressThis ?? '',
      notThat: notThat ?? '',
      sense: null,
      gain: 1,
      pivot: 'first_mark',
    });
    await session.insert(settingValue).values({
      id: randomUUID(),
      machineSettingId: id,
      seq: 1,
      value,
      source: 'typed',
      setAt: now(),
      setBy: actor.personId,
    });
    made.push({ id, value });
  }
  return made;
}

/** One thing of a kind: shared where it is known, else made with a name that is free. */
interface Found {
  readonly id: string;
  readonly isNew: boolean;
}

async function printerFor(session: Session, shopId: string, input: NewSetupInput): Promise<Found> {
  const known = await findPrinters(session, shopId);
  const shared = known.find((p) => p.id === input.printerId);
  if (shared) return { id: shared.id, isNew: false };
  const id = randomUUID();
  const name = freeName(
    input.printerName,
    known.map((p) => p.name),
  );
  await session.insert(printer).values({ id, shopId, name, dotPitchMm: USUAL_DOT_MM });
  return { id, isNew: true };
}

async function cutterFor(session: Session, shopId: string, input: NewSetupInput, scheme: string): Promise<Found> {
  const known = await findCutters(session, shopId);
  const shared = known.find((c) => c.id === input.cutterId);
  if (shared) return { id: shared.id, isNew: false };
  const id = randomUUID();
  const name = freeName(
    input.cutterName,
    known.map((c) => c.name),
  );
  await session.insert(cutter).values({
    id,
    shopId,
    name,
    fileFormat: input.fileFormat,
    fileAcross: '+x',
    fileAlong: '+y',
    feeds: feedsOf(input.family),
    markSchemeId: scheme,
  });
  return { id, isNew: true };
}

async function programFor(
  session: Session,
  shopId: string,
  input: NewSetupInput,
  scheme: string,
): Promise<Found | null> {
  const known = await findPrograms(session, shopId);
  const shared = known.find((p) => p.id === input.programId);
  if (shared) return { id: shared.id, isNew: false };
  if (!input.program) return null;
  const id = randomUUID();
  const name = freeName(
    input.program.name,
    known.map((p) => p.name),
  );
  await session.insert(program).values({ id, shopId, ...input.program, name, markSchemeId: scheme });
  return { id, isNew: true };
}

async function modeFor(session: Session, printerId: string, { page }: NewSetupInput): Promise<string> {
  const modes = await session.select().from(printMode).where(eq(printMode.printerId, printerId));
  const known = modes.find(
    (m) => m.page === page.name && m.pageWidthMm === page.widthMm && m.pageLengthMm === page.lengthMm,
  );
  if (known) return known.id;
  const id = randomUUID();
  const name = freeName(
    `${page.name}, as usual`,
    modes.map((m) => m.name),
  );
  await session.insert(printMode).values({
    id,
    printerId,
    name,
    page: page.name,
    pageWidthMm: page.widthMm,
    pageLengthMm: page.lengthMm,
  });
  return id;
}

/** A stand-in's hidden error: in reach of the fine figures, turned and stretched a little, different for every setup. */
function practiceTruth(setupId: string, settings: readonly { readonly id: string; readonly value: number }[]) {
  const rng = seededRng(seedFrom('practice', setupId));
  const spread = (half: number): number => (2 * rng() - 1) * half;
  return {
    machineError: {
      // A which-way test moves the cut by half a mm more: it must stay within a wedge's reach.
      ...NO_ERROR,
      offsetAcrossMm: spread(0.25),
      offsetAlongMm: spread(0.25),
      rotationRad: spread(0.001),
      scaleAcross: spread(0.001),
      scaleAlong: spread(0.001),
    },
    markSdMm: 0.04,
    printScale: 1,
    importPxPerInch: 96,
    senses: Object.fromEntries(settings.map((s) => [s.id, rng() < 0.5 ? -1 : 1])),
    order: 'settings-last',
    baseValues: Object.fromEntries(settings.map((s) => [s.id, s.value])),
  };
}

/** The limit to begin with, round in the units of the person who makes the setup. */
async function firstLimitMm(session: Session, actor: Actor, family: Family): Promise<number> {
  const [own] = await session.select().from(person).where(eq(person.id, actor.personId));
  return usualLimitsMm(family, own?.unitSystem ?? 'mm')[0];
}

/** A printer + cutter from the first taps: machines shared or new, marks and settings of the generic kinds chosen. */
export async function makeSetup(
  database: Database,
  actor: Actor & { readonly shopId: string },
  input: NewSetupInput,
): Promise<Result<string, Refusal>> {
  const stranger = await strangerIn(database, actor);
  if (stranger) return fail(stranger);
  if (await findSetup(database, input.id)) return ok(input.id);
  const { shopId } = actor;
  const shared = (await findPrograms(database, shopId)).find((p) => p.id === input.programId);
  const answers = shared ?? input.program;
  const marks = MARK_KIND_WORDS[input.markKind];
  const block = layOutBlock(input.page, markSpaceOf({ kind: input.markKind, ...marks }));
  if (!block.ok) return fail(refusal(tooSmallWords(input.page.name, block.error)));
  const kit = settingKit(input.kitId);
  if (!kit) return fail(refusal(`"${input.kitId}" is not a kind of machine known here.`));
  if (kit.isInProgram && !answers)
    return fail(
      refusal('Settings in the program need a program. Choose another kind, or say which program sends the cut.'),
    );
  await database.transaction(async (session) => {
    const scheme = await schemeFor(session, shopId, input.markKind);
    const ownPrinter = await printerFor(session, shopId, input);
    const ownCutter = await cutterFor(session, shopId, input, scheme);
    const ownProgram = await programFor(session, shopId, input, scheme);
    if ((await findMaterials(session, shopId)).length === 0)
      await session.insert(material).values({ id: randomUUID(), shopId, name: 'Plain paper', finish: 'matt' });
    const holder = kit.isInProgram ? ownProgram : ownCutter;
    const owner = kit.isInProgram && ownProgram ? { programId: ownProgram.id } : { cutterId: ownCutter.id };
    const settings = holder?.isNew ? await storeSettings(session, actor, owner, kit.settings) : [];
    await session.insert(setup).values({
      id: input.id,
      shopId,
      name: input.name,
      printerId: ownPrinter.id,
      printModeId: await modeFor(session, ownPrinter.id, input),
      programId: ownProgram?.id ?? null,
      cutterId: ownCutter.id,
      tool: 'knife',
      carrier: feedsOf(input.family) === 'away' ? 'mat' : 'roll',
      route: decideRoute(answers, input.family).route,
      family: input.family,
      toleranceMm: await firstLimitMm(session, actor, input.family),
    });
    if (!input.isSimulated) return;
    const truth = practiceTruth(input.id, settings);
    await session.insert(simulatedSetup).values({ setupId: input.id, seed: seedFrom('own', input.id), truth });
  });
  return ok(input.id);
}
