import 'server-only';
import { createHash, randomUUID } from 'node:crypto';
import { CODE_WORDS } from '@/core/target/code-book';
import { sheetCodeOf } from '@/core/target/sheet-code';
import { wordShiftOf } from '@/core/target/sheet-words';
import type { Session } from '@/db/client';
import { isCodeTaken, recentWordShifts } from '@/db/queries/sheets';

/** What tells one printed sheet from every other. */
export interface SheetMarks {
  readonly id: string;
  /** Printed on it and in the names of its files. */
  readonly code: string;
  /** By how many words of the code book its discs are moved on. */
  readonly wordShift: number;
}

/** Sheets back to which no two carry the same words: a scan tells all of them apart. */
export const APART_FROM_LAST = 40;

async function freeCode(session: Session, id: string): Promise<string> {
  for (let tried = 0; ; tried++) {
    const code = sheetCodeOf(
      createHash('sha256')
        .update(`${id} ${String(tried)}`)
        .digest(),
    );
    if (!(await isCodeTaken(session, code))) return code;
  }
}

/** Marks of a sheet that is about to be printed: a code of its own, and words that none of the latest sheets carries. */
export async function newSheetMarks(session: Session): Promise<SheetMarks> {
  const id = randomUUID();
  const taken = new Set(await recentWordShifts(session, APART_FROM_LAST));
  let wordShift = wordShiftOf(id);
  while (taken.has(wordShift)) wordShift = (wordShift + 1) % CODE_WORDS.length;
  return { id, code: await freeCode(session, id), wordShift };
}
