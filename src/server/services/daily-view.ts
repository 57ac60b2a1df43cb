import 'server-only';
import type { School } from '@/core/charts/control-chart';
import type { DailyMethod } from '@/core/trust/daily-method';
import type { Database } from '@/db/client';
import { findLastMaterial } from '@/db/queries/bench';
import { findMaterials, findSetup } from '@/db/queries/shop';
import { findCheckMakers } from '@/db/queries/trust';
import { dailyChart, type DailyChart, type DailyPoint } from './daily-chart';
import { policyOf } from './trust';
import { chartFacts } from './trust-facts';

/** A daily check with how it was measured, and by whom. */
export interface ToldCheck extends DailyPoint {
  readonly method: DailyMethod;
  readonly note: string;
  readonly by: string;
}

export interface DailyView {
  readonly setupId: string;
  readonly setupName: string;
  readonly isSimulated: boolean;
  readonly toleranceMm: number;
  readonly materials: readonly { readonly id: string; readonly name: string }[];
  readonly materialId: string;
  readonly school: School;
  readonly chart: DailyChart;
  /** The checks of the chart, oldest first. */
  readonly checks: readonly ToldCheck[];
}

/** Daily checks of a setup on one material: the one asked for, else the one measured or confirmed last. */
export async function readDaily(
  database: Database,
  setupId: string,
  asked: string | undefined,
): Promise<DailyView | null> {
  const row = await findSetup(database, setupId);
  if (!row) return null;
  const [facts, materials, confirmed] = await Promise.all([
    chartFacts(database, row),
    findMaterials(database, row.setup.shopId),
    findLastMaterial(database, setupId),
  ]);
  const latest = facts.checks[0]?.material_id ?? confirmed;
  const chosen = materials.find((m) => m.id === asked) ?? materials.find((m) => m.id === latest) ?? materials[0];
  if (!chosen) return null;
  const { school } = policyOf(facts, chosen.id);
  const chart = dailyChart(facts, chosen.id, school);
  const makers = await findCheckMakers(
    database,
    chart.points.map((p) => p.id),
  );
  return {
    ...{
      setupId,
      setupName: row.setup.name,
      isSimulated: row.isSimulated,
      toleranceMm: row.setup.toleranceMm,
      materialId: chosen.id,
      school,
    },
    materials: materials.map((m) => ({ id: m.id, name: m.name })),
    chart,
    checks: chart.points.flatMap((point) => {
      const maker = makers.get(point.id);
      return maker ? [{ ...point, ...maker }] : [];
    }),
  };
}
