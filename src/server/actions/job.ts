'use server';

import { revalidatePath } from 'next/cache';
import {
  ArchiveJob,
  CopyJob,
  KeepDraft,
  LockJob,
  OnlyJob,
  PrintedJob,
  ReleaseCut,
  StartJob,
  TellResult,
} from '@/contracts/jobs';
import { database } from '../services/database';
import { releaseCut, tellPrinted, tellResult, type Released } from '../services/job-cut';
import { lockJob } from '../services/job-lock';
import { stampFor } from '../services/job-stamp';
import { archiveJob, bringBack, copyJob, keepDraft, startJob } from '../services/jobs';
import { currentSession } from '../services/session';
import { answer, type Answer } from './run';

const actor = async () => ({ personId: (await currentSession()).person.id });

const refresh = (jobId: string): void => {
  revalidatePath(`/jobs/${jobId}`);
  revalidatePath('/jobs');
};

export async function beginJob(raw: unknown): Promise<Answer<string>> {
  return answer(StartJob, raw, async (input) => startJob(database(), await actor(), input));
}

export async function draftKept(raw: unknown): Promise<Answer<number>> {
  return answer(KeepDraft, raw, async (input) => keepDraft(database(), input));
}

export async function jobLocked(raw: unknown): Promise<Answer<string>> {
  return answer(LockJob, raw, async (input) => {
    const done = await lockJob(database(), await actor(), input);
    refresh(input.jobId);
    return done;
  });
}

export async function jobPrinted(raw: unknown): Promise<Answer<string>> {
  return answer(PrintedJob, raw, async (input) => {
    const done = await tellPrinted(database(), await actor(), input);
    refresh(input.jobId);
    return done;
  });
}

export async function cutReleased(raw: unknown): Promise<Answer<Released>> {
  return answer(ReleaseCut, raw, async (input) => {
    const { person } = await currentSession();
    const done = await releaseCut(database(), { personId: person.id }, { input, stamp: stampFor(person.timeZone) });
    refresh(input.jobId);
    return done;
  });
}

export async function resultTold(raw: unknown): Promise<Answer<string>> {
  return answer(TellResult, raw, async (input) => {
    const done = await tellResult(database(), await actor(), input);
    refresh(input.jobId);
    return done;
  });
}

export async function jobArchived(raw: unknown): Promise<Answer<string>> {
  return answer(ArchiveJob, raw, async (input) => {
    const done = await archiveJob(database(), input);
    refresh(input.jobId);
    return done;
  });
}

export async function jobBroughtBack(raw: unknown): Promise<Answer<string>> {
  return answer(OnlyJob, raw, async ({ jobId }) => {
    const done = await bringBack(database(), jobId);
    refresh(jobId);
    return done;
  });
}

export async function jobCopied(raw: unknown): Promise<Answer<string>> {
  return answer(CopyJob, raw, async (input) => copyJob(database(), await actor(), input));
}
