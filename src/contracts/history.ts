import { z } from 'zod';

export const RECORD_KINDS = ['confirmed', 'put-back', 'happened', 'daily-check', 'result'] as const;
export type RecordKind = (typeof RECORD_KINDS)[number];

const day = z.iso.date();

/** What of the history is wanted, as it stands in the address: whatever cannot be understood is left out. */
export const HistoryQuery = z.object({
  setup: z.uuid().optional().catch(undefined),
  material: z.uuid().optional().catch(undefined),
  kind: z.enum(RECORD_KINDS).optional().catch(undefined),
  find: z.string().trim().max(100).optional().catch(undefined),
  from: day.optional().catch(undefined),
  to: day.optional().catch(undefined),
  /** Lines before this moment, to leaf on. */
  before: z.iso.datetime().optional().catch(undefined),
});
export type HistoryQueryInput = z.infer<typeof HistoryQuery>;

export const KeepNote = z.object({
  id: z.uuid(),
  historyEntryId: z.uuid(),
  note: z.string().trim().min(1, 'some words').max(500, 'at most 500 letters'),
});
export type KeepNoteInput = z.infer<typeof KeepNote>;
