import 'server-only';
import { changeKind, type Change } from '@/core/charts/change-kind';
import { controlChart, type ControlChart, type School } from '@/core/charts/control-chart';
import { DAY_MS } from '@/core/trust/looks';
import type { ChartFacts } from './trust-facts';

export interface DailyPoint {
  readonly id: string;
  readonly at: Date;
  readonly acrossMm: number;
  readonly alongMm: number;
  readonly standardUncertaintyMm: number;
}

/** A chart's signal at its newest point, and what kind of change it looks like. */
export interface DailySignal {
  readonly axis: 'across' | 'along';
  readonly change: Change;
  /** When the change began. */
  readonly since: Date;
  /** Another material of this setup was checked meanwhile and does not show it. */
  readonly isOfMaterial: boolean;
  /** Nothing was measured after it: one more piece of another load tells whether it was this load alone. */
  readonly isFirst: boolean;
}

/** Daily checks of one material since the machine was set anew, each direction held against its chart. */
export interface DailyChart {
  readonly points: readonly DailyPoint[];
  readonly across: ControlChart;
  readonly along: ControlChart;
  readonly signal: DailySignal | null;
}

/** Daily checks since the machine got other values, oldest first. */
function checksOf(facts: ChartFacts, materialId: string): readonly DailyPoint[] {
  const begin = facts.setAnewMs.at(-1) ?? 0;
  return facts.checks
    .filter((check) => check.material_id === materialId && check.at_ms > begin)
    .map(({ id, at_ms, across, along, uncertainty }) => ({
      id,
      at: new Date(at_ms),
      acrossMm: across,
      alongMm: along,
      standardUncertaintyMm: uncertainty,
    }))
    .reverse();
}

/** Another material, checked since the change began and within what is usual for it: the change is not the machine's. */
function isQuietElsewhere(facts: ChartFacts, materialId: string, school: School, since: Date): boolean {
  const others = new Set(facts.checks.map((c) => c.material_id).filter((id) => id !== materialId));
  return [...others].some((other) => {
    const points = checksOf(facts, other);
    const last = points.at(-1);
    if (!last || last.at < since) return false;
    const charts = (['acrossMm', 'alongMm'] as const).map((axis) =>
      controlChart(
        points.map((p) => p[axis]),
        school,
      ),
    );
    return charts.every((chart) => chart.usual !== null && chart.points.at(-1)?.signal === null);
  });
}

function signalOf(
  facts: ChartFacts,
  { materialId, school }: { readonly materialId: string; readonly school: School },
  points: readonly DailyPoint[],
  charts: Pick<DailyChart, 'across' | 'along'>,
): DailySignal | null {
  const signals = (['across', 'along'] as const).flatMap((axis): readonly DailySignal[] => {
    const { points: drawn, usual } = charts[axis];
    if (!drawn.at(-1)?.signal || !usual) return [];
    const values = points.map((p) => p[`${axis}Mm`]);
    const days = points.map((p) => p.at.getTime() / DAY_MS);
    const change = changeKind(values, days, usual.sd);
    const since = points[change.at]?.at ?? new Date(0);
    const isOfMaterial = isQuietElsewhere(facts, materialId, school, since);
    return [{ axis, change, since, isOfMaterial, isFirst: !drawn.at(-2)?.signal }];
  });
  // One that stands goes before one that has just come.
  return signals.find((s) => !s.isFirst) ?? signals[0] ?? null;
}

export function dailyChart(facts: ChartFacts, materialId: string, school: School): DailyChart {
  const points = checksOf(facts, materialId);
  const across = controlChart(
    points.map((p) => p.acrossMm),
    school,
  );
  const along = controlChart(
    points.map((p) => p.alongMm),
    school,
  );
  return { points, across, along, signal: signalOf(facts, { materialId, school }, points, { across, along }) };
}
