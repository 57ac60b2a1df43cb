'use server';

import { revalidatePath } from 'next/cache';
import {
  AcceptCorrection,
  CheckPrint,
  MarkTry,
  OnlyCalibration,
  RecordCut,
  SaveReading,
  SaveReadingList,
  SaveScan,
  StartCalibration,
  TrialCut,
  UseRough,
} from '@/contracts/inputs';
import type { Verdict } from '@/core/verdict/bound';
import { database } from '../services/database';
import type { Actor } from '../services/actor';
import { abandonCalibration, confirmCorrection, reopenCalibration } from '../services/confirm';
import { acceptCorrection, applyRough } from '../services/corrections';
import { saveReading, saveReadingList, type SavedReading } from '../services/readings';
import { saveScan } from '../services/scans';
import { currentSession } from '../services/session';
import { startCalibration } from '../services/start';
import { addSheet, checkPrint, logMarkTry, recordCut } from '../services/steps';
import { keepMarkUse } from '../services/mark-use';
import { keepFaces } from '../services/two-faces';
import { keepLearned, recordTrial } from '../services/which-way';
import { answer, type Answer } from './run';

async function actor(): Promise<Actor> {
  return { personId: (await currentSession()).person.id };
}

function refresh(calibrationId: string): void {
  revalidatePath(`/calibrations/${calibrationId}`, 'layout');
  revalidatePath('/');
}

export async function start(raw: unknown): Promise<Answer<string>> {
  return answer(StartCalibration, raw, async (input) => {
    const done = await startCalibration(database(), await actor(), input);
    revalidatePath('/');
    return done;
  });
}

export async function printChecked(raw: unknown): Promise<Answer<'right' | 'scaled'>> {
  return answer(CheckPrint, raw, async (input) => {
    const done = await checkPrint(database(), await actor(), input);
    refresh(input.calibrationId);
    return done;
  });
}

export async function cutDone(raw: unknown): Promise<Answer<string>> {
  return answer(RecordCut, raw, async (input) => {
    const done = await recordCut(database(), await actor(), input);
    refresh(input.calibrationId);
    return done;
  });
}

export async function markTried(raw: unknown): Promise<Answer<string>> {
  return answer(MarkTry, raw, async (input) => {
    const done = await logMarkTry(database(), await actor(), input);
    refresh(input.calibrationId);
    return done;
  });
}

/** Kept as it is made; the page is not drawn anew, so that the next figure stays under the finger. */
export async function keepReading(raw: unknown): Promise<Answer<SavedReading>> {
  return answer(SaveReading, raw, async (input) => saveReading(database(), await actor(), input));
}

/** A list typed or dropped in: kept whole, or not at all. */
export async function keepReadingList(raw: unknown): Promise<Answer<number>> {
  return answer(SaveReadingList, raw, async (input) => saveReadingList(database(), await actor(), input));
}

export async function roughUsed(raw: unknown): Promise<Answer<string>> {
  return answer(UseRough, raw, async (input) => {
    const done = await applyRough(database(), await actor(), input);
    refresh(input.calibrationId);
    return done;
  });
}

export async function scanMeasured(raw: unknown): Promise<Answer<number>> {
  return answer(SaveScan, raw, async (input) => {
    const done = await saveScan(database(), await actor(), input);
    revalidatePath('/', 'layout');
    return done;
  });
}

export async function correctionSet(raw: unknown): Promise<Answer<string>> {
  return answer(AcceptCorrection, raw, async (input) => {
    const done = await acceptCorrection(database(), await actor(), input);
    refresh(input.calibrationId);
    return done;
  });
}

export async function judge(raw: unknown): Promise<Answer<Verdict>> {
  return answer(OnlyCalibration, raw, async (input) => {
    const done = await confirmCorrection(database(), await actor(), input);
    refresh(input.calibrationId);
    return done;
  });
}

export async function anotherSheet(raw: unknown): Promise<Answer<number>> {
  return answer(OnlyCalibration, raw, async (input) => {
    const done = await addSheet(database(), await actor(), input);
    refresh(input.calibrationId);
    return done;
  });
}

export async function leaveCalibration(raw: unknown): Promise<Answer<string>> {
  return answer(OnlyCalibration, raw, async (input) => {
    const done = await abandonCalibration(database(), await actor(), input);
    refresh(input.calibrationId);
    return done;
  });
}

export async function takeUpAgain(raw: unknown): Promise<Answer<string>> {
  return answer(OnlyCalibration, raw, async (input) => {
    const done = await reopenCalibration(database(), await actor(), input);
    refresh(input.calibrationId);
    return done;
  });
}

export async function trialCut(raw: unknown): Promise<Answer<string>> {
  return answer(TrialCut, raw, async (input) => {
    const done = await recordTrial(database(), await actor(), input);
    revalidatePath('/', 'layout');
    return done;
  });
}

export async function keepFrontAndBack(raw: unknown): Promise<Answer<string>> {
  return answer(OnlyCalibration, raw, async (input) => {
    const done = await keepFaces(database(), await actor(), input);
    revalidatePath('/', 'layout');
    return done;
  });
}

export async function keepMarks(raw: unknown): Promise<Answer<string>> {
  return answer(OnlyCalibration, raw, async (input) => {
    const done = await keepMarkUse(database(), await actor(), input);
    revalidatePath('/', 'layout');
    return done;
  });
}

export async function keepWhichWay(raw: unknown): Promise<Answer<string>> {
  return answer(OnlyCalibration, raw, async (input) => {
    const done = await keepLearned(database(), await actor(), input);
    revalidatePath('/', 'layout');
    return done;
  });
}
