/** How a daily check was measured: four borders by hand, or on a photograph, or the two small discs beside the work. */
export const DAILY_METHODS = ['hand', 'photo', 'discs'] as const;
export type DailyMethod = (typeof DAILY_METHODS)[number];

export const DAILY_METHOD_WORDS: Readonly<Record<DailyMethod, string>> = {
  hand: 'four borders',
  photo: 'one photo',
  discs: 'two small discs',
};
