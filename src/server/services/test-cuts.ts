import 'server-only';
import type { KeepTestCutInput } from '@/contracts/floor';
import { fail, ok, type Result } from '@/core/result';
import { nextForce, testCutNeed, type NextForce, type TestCutNeed } from '@/core/shop/test-cut';
import type { Database } from '@/db/client';
import { findBlade, findTestCuts, findTestCutsOf } from '@/db/queries/floor';
import { findMaterials, findSetup, type SetupRow } from '@/db/queries/shop';
import { testCut } from '@/db/schema/floor';
import { now } from '../clock';
import { refusal, type Actor, type Refusal } from './actor';
import { strangerTo } from './own-shop';

/** Keeps a test cut. Sent twice, it is kept once. */
export async function keepTestCut(
  database: Database,
  actor: Actor,
  input: KeepTestCutInput,
): Promise<Result<string, Refusal>> {
  const stranger = await strangerTo(database, actor, { setupId: input.setupId, materialId: input.materialId });
  if (stranger) return fail(stranger);
  const { setupId, ...values } = input;
  const row = await findSetup(database, setupId);
  const materials = row ? await findMaterials(database, row.setup.shopId) : [];
  if (!row || materials.every((m) => m.id !== input.materialId))
    return fail(refusal('This printer + cutter or material is not there any more.'));
  await database
    .insert(testCut)
    .values({ ...values, cutterId: row.cutter.id, at: now(), by: actor.personId })
    .onConflictDoNothing();
  return ok(input.id);
}

type TestCutRow = typeof testCut.$inferSelect;

const needOf = (made: readonly TestCutRow[], bladeAt: Date | undefined): TestCutNeed | null =>
  testCutNeed(
    made.map(({ at, outcome }) => ({ atMs: at.getTime(), outcome })),
    bladeAt?.getTime() ?? null,
  );

/** What to try next with this blade, in the unit that was used last. */
function nextFor(made: readonly TestCutRow[], bladeAt: Date | null): NextForce {
  const unit = made.at(-1)?.forceUnit ?? 'gf';
  const tried = made.flatMap(({ at, force, forceUnit, outcome }) =>
    (bladeAt === null || at >= bladeAt) && force !== null && forceUnit === unit ? [{ force, outcome }] : [],
  );
  return nextForce(tried, unit);
}

/** Why a job on this material and stack wants a test cut first; null where it was cut clean with this blade. */
export async function testCutWanted(
  database: Database,
  row: SetupRow,
  of: { readonly materialId: string; readonly stack: string },
): Promise<TestCutNeed | null> {
  const [blade, made] = await Promise.all([
    findBlade(database, row.cutter.id),
    findTestCutsOf(database, { cutterId: row.cutter.id, ...of }),
  ]);
  return needOf(made, blade?.at);
}

const MOST_LISTED = 60;

/** Everything of the page of one setup's blade and forces. Null where there is no such setup. */
export async function readTestCuts(
  database: Database,
  setupId: string,
  asked: { readonly materialId: string | undefined; readonly stack: string },
) {
  const row = await findSetup(database, setupId);
  if (!row) return null;
  const [materials, blade, all] = await Promise.all([
    findMaterials(database, row.setup.shopId),
    findBlade(database, row.cutter.id),
    findTestCuts(database, row.cutter.id, MOST_LISTED),
  ]);
  const last = all[0]?.testCut;
  const materialId = materials.find((m) => m.id === (asked.materialId ?? last?.materialId))?.id ?? materials[0]?.id;
  if (materialId === undefined) return null;
  const made = await findTestCutsOf(database, { cutterId: row.cutter.id, materialId, stack: asked.stack });
  return {
    ...{ setupId, setupName: row.setup.name, cutterName: row.cutter.name, tool: row.setup.tool },
    materials: materials.map(({ id, name }) => ({ id, name })),
    stacks: [...new Set(all.map((t) => t.testCut.stack))].filter(Boolean),
    ...{ materialId, stack: asked.stack, blade, last: made.at(-1) ?? null },
    next: nextFor(made, blade?.at ?? null),
    need: needOf(made, blade?.at),
    all: all.map(({ testCut: t, ...names }) => ({
      ...t,
      ...names,
      isThisBlade: blade === null || t.at >= blade.at,
    })),
  };
}

export type TestCutsView = NonNullable<Awaited<ReturnType<typeof readTestCuts>>>;
