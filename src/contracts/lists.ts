import { z } from 'zod';

/** Lists that are given out as CSV or JSON, and what they are called. */
export const LIST_WORDS = {
  setups: 'Printers + cutters',
  settings: 'Settings, with their present values',
  materials: 'Materials',
  people: 'People',
  calibrations: 'Calibrations',
  readings: 'Readings of check sheets',
  events: 'What happened to machines',
  'daily-checks': 'Daily checks',
  'test-cuts': 'Test cuts',
  'mark-readings': 'How marks were read',
  'roll-readings': 'Readings of rolls',
  jobs: 'Jobs',
  results: 'Results of jobs, with what was spoiled',
} as const;
export type ListName = keyof typeof LIST_WORDS;
export const LIST_NAMES = Object.keys(LIST_WORDS) as readonly ListName[];

export const ListQuery = z.object({
  what: z.enum(LIST_NAMES),
  format: z.enum(['csv', 'json']).catch('csv'),
});
