import { z } from 'zod';

/** What is taken in from other tools' tables. */
export const IMPORT_WORDS = {
  'daily-checks': 'Borders of finished pieces',
  'test-cuts': 'Test cuts',
  materials: 'Materials',
} as const;
export type ImportKind = keyof typeof IMPORT_WORDS;
export const IMPORT_KINDS = Object.keys(IMPORT_WORDS) as readonly ImportKind[];

/** An action takes one megabyte; a letter may be four bytes. */
export const MOST_IMPORT_LETTERS = 240_000;
export const MOST_IMPORT_LINES = 5000;
/** Lines of the preview. */
export const MOST_PREVIEWED = 50;

export const ImportTable = z.object({
  what: z.enum(IMPORT_KINDS),
  text: z.string().max(MOST_IMPORT_LETTERS, `at most ${MOST_IMPORT_LETTERS} letters at once: part the file`),
  isDayFirst: z.boolean(),
  /** Whether the lines are to be kept; otherwise they are only looked at. */
  isKept: z.boolean(),
});
export type ImportTableInput = z.infer<typeof ImportTable>;

export const TakeBackImport = z.object({ ids: z.array(z.uuid()).min(1).max(MOST_IMPORT_LINES) });

export interface ImportLook {
  /** Heads of the file, and what each was taken for; null: passed over. */
  readonly heads: readonly { readonly title: string; readonly key: string | null }[];
  readonly problems: readonly { readonly line: number; readonly field: string; readonly words: string }[];
  /** Lines as they were understood, the first ones. */
  readonly preview: readonly { readonly line: number; readonly cells: readonly string[] }[];
  readonly lines: number;
  /** Ids of what was kept; empty while it is only looked at. */
  readonly kept: readonly string[];
}
