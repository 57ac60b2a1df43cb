'use client';

import { useEffect, useRef, useState } from 'react';
import { v4 as uuid } from 'uuid';
import type { DiscResult } from '@/core/scan/measured-figure';
import {
  scanWorker,
  type MeasuredScan,
  type ScanFailure,
  type PicturePreview,
  type ScanSought,
  type ScanTold,
  type ScanWorker,
} from '@/workers/scan.client';

/** The small picture, and where it is shown from. */
export interface ShownPreview extends PicturePreview {
  readonly href: string;
}

/** In their order. */
const STAGES = ['waiting', 'reading', 'finding', 'measuring', 'measured', 'refused'] as const;

/** One file on its way: waiting, read, searched, measured, or refused with words. */
export interface ScanJob {
  readonly id: string;
  readonly file: File;
  readonly stage: (typeof STAGES)[number];
  readonly share: number;
  readonly preview: ShownPreview | null;
  /** Places of the discs whose ring was read, in the scan. */
  readonly found: readonly { readonly x: number; readonly y: number }[];
  readonly discs: readonly DiscResult[];
  readonly measured: MeasuredScan | null;
  /** Links to the pictures of its discs, by key. */
  readonly closeUps: Readonly<Record<string, string>>;
  readonly refusal: string | null;
}

export interface Scans {
  readonly jobs: readonly ScanJob[];
  readonly isBusy: boolean;
  readonly add: (files: readonly File[]) => void;
  readonly remove: (id: string) => void;
  readonly cancel: () => void;
}

const newJob = (file: File): ScanJob => ({
  id: uuid(),
  file,
  stage: 'waiting',
  share: 0,
  preview: null,
  found: [],
  discs: [],
  measured: null,
  closeUps: {},
  refusal: null,
});

const isOver = ({ stage }: ScanJob): boolean => stage === 'measured' || stage === 'refused';

/** Never back: what is told and the answer come by different ways, so that something may be told after the answer. */
const onward = (job: ScanJob, stage: ScanJob['stage']): ScanJob['stage'] =>
  STAGES.indexOf(stage) > STAGES.indexOf(job.stage) ? stage : job.stage;

/** What a job looks like after something was told of it. */
function after(job: ScanJob, told: ScanTold): ScanJob {
  switch (told.stage) {
    case 'reading':
      return { ...job, stage: onward(job, 'reading'), share: told.share };
    case 'read':
      return {
        ...job,
        stage: onward(job, 'finding'),
        preview: { ...told.preview, href: URL.createObjectURL(told.preview.blob) },
      };
    case 'found':
      return { ...job, stage: onward(job, 'measuring'), share: 0, found: told.discs };
    case 'measured':
      return {
        ...job,
        share: told.done / told.of,
        discs: isOver(job) ? job.discs : [...job.discs.filter((d) => d.key !== told.disc.key), told.disc],
      };
  }
}

const linksTo = (crops: MeasuredScan['crops']): Readonly<Record<string, string>> =>
  Object.fromEntries(Object.entries(crops).map(([key, blob]) => [key, URL.createObjectURL(blob)]));

const measuredJob = (job: ScanJob, measured: MeasuredScan): ScanJob => ({
  ...job,
  stage: 'measured',
  measured,
  discs: measured.result.discs,
  closeUps: linksTo(measured.crops),
});

/** Gives back what the browser holds for a job's pictures. */
function forget({ preview, closeUps }: ScanJob): void {
  for (const href of [...(preview ? [preview.href] : []), ...Object.values(closeUps)]) URL.revokeObjectURL(href);
}

/** Words for scans that are not used. */
export interface ScanWords {
  /** Why a scan that could be measured is not the one that is asked for; null where it is. */
  readonly objectionTo: (result: MeasuredScan['result']) => string | null;
  readonly failure: (failure: ScanFailure) => string;
}

/** Scans of one cut, measured one after another in a worker. Nothing leaves the browser. */
export function useScans(sought: ScanSought, words: ScanWords): Scans {
  const [jobs, setJobs] = useState<readonly ScanJob[]>([]);
  const worker = useRef<ScanWorker | null>(null);
  const queue = useRef<{ readonly id: string; readonly file: File }[]>([]);
  const isRunning = useRef(false);
  /** Raised when everything is cancelled: answers to older work are dropped. */
  const round = useRef(0);

  useEffect(
    () => () => {
      worker.current?.cancel();
    },
    [],
  );

  const change = (id: string, to: (job: ScanJob) => ScanJob): void => {
    setJobs((now) => now.map((job) => (job.id === id ? to(job) : job)));
  };

  const measureOne = async (id: string, file: File, mine: number): Promise<void> => {
    const refuse = (refusal: string): void => {
      change(id, (job) => ({ ...job, stage: 'refused', refusal }));
    };
    try {
      worker.current ??= scanWorker();
      const done = await worker.current.measure(file, sought, (told) => {
        if (mine === round.current) change(id, (job) => after(job, told));
      });
      if (mine !== round.current) return;
      const objection = done.ok ? words.objectionTo(done.value.result) : words.failure(done.error);
      if (objection !== null) refuse(objection);
      else if (done.ok) change(id, (job) => measuredJob(job, done.value));
    } catch {
      if (mine === round.current) refuse('The browser could not read it: choose the file once more.');
    }
  };

  const run = async (): Promise<void> => {
    if (isRunning.current) return;
    isRunning.current = true;
    const mine = round.current;
    for (let next = queue.current.shift(); next && mine === round.current; next = queue.current.shift())
      await measureOne(next.id, next.file, mine);
    if (mine === round.current) isRunning.current = false;
  };

  return {
    jobs,
    isBusy: jobs.some((job) => !isOver(job)),
    add: (files) => {
      const added = files.map(newJob);
      setJobs((now) => [...now, ...added]);
      queue.current.push(...added);
      void run();
    },
    remove: (id) => {
      jobs.filter((job) => job.id === id).forEach(forget);
      setJobs((now) => now.filter((job) => job.id !== id));
    },
    cancel: () => {
      round.current += 1;
      isRunning.current = false;
      queue.current = [];
      worker.current?.cancel();
      setJobs((now) => now.filter(isOver));
    },
  };
}
