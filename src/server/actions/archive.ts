'use server';

import { RestoreArchive } from '@/contracts/archive';
import { ok } from '@/core/result';
import { leaveAsItIs } from '@/server/services/archive';
import { answer, type Answer } from './run';

/** Drops the archive that was looked at: nothing has changed. */
export async function archiveLeft(raw: unknown): Promise<Answer<null>> {
  return answer(RestoreArchive, raw, async ({ sha256 }) => {
    await leaveAsItIs(sha256);
    return ok(null);
  });
}
