import type { ScanJob } from './use-scans';

/** The scan that is shown: what is worked on, else the newest one with a picture. */
export const shownJob = (jobs: readonly ScanJob[]): ScanJob | undefined =>
  jobs.find((j) => j.stage !== 'measured' && j.stage !== 'refused' && j.stage !== 'waiting') ??
  jobs.filter((j) => j.preview !== null).at(-1);
