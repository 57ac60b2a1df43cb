/** What a sheet costs, in the shop's own money. */
export interface SheetCosts {
  /** Material and ink of one sheet. */
  readonly material: number;
  readonly reprintMinutes: number;
  readonly rescueMinutes: number;
  readonly perHour: number;
}

export interface RescueOrReprint {
  readonly reprintCost: number;
  readonly rescueCost: number;
  /** Expected: a spoiled sheet is printed again after all. */
  readonly expectedRescue: number;
  readonly expectedReprint: number;
  readonly better: 'rescue' | 'reprint';
}

const minutes = (count: number, { perHour }: SheetCosts): number => (count / 60) * perHour;

/**
 * Whether a print that lies askew is worth cutting: the work of registering it by hand and the risk of printing it again
 * after all, against printing it again now with the setup's own risk.
 * @param rescueOutShare share of such sheets spoiled when registered by hand. @param reprintOutShare when printed afresh.
 */
export function rescueOrReprint(costs: SheetCosts, rescueOutShare: number, reprintOutShare: number): RescueOrReprint {
  const reprintCost = costs.material + minutes(costs.reprintMinutes, costs);
  const rescueCost = minutes(costs.rescueMinutes, costs);
  const expectedRescue = rescueCost + rescueOutShare * reprintCost;
  const expectedReprint = reprintCost + reprintOutShare * reprintCost;
  return {
    reprintCost,
    rescueCost,
    expectedRescue,
    expectedReprint,
    better: expectedRescue <= expectedReprint ? 'rescue' : 'reprint',
  };
}
