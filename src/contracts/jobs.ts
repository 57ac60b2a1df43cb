import { z } from 'zod';
import { MarksRead, Stack } from './floor';
import { CUT_SHAPES, CUT_SOURCES, EDGE_KINDS, LINE_CHOICES, type JobDraft } from '@/core/layout/job-draft';
import { MARK_KINDS } from '@/core/shop/words';

const Id = z.uuid();
const Name = z.string().trim().min(1, 'a name').max(80, 'at most 80 letters');
const FileName = z.string().max(200);
const mm = (least: number, most: number) =>
  z.number().min(least, `at least ${least} mm`).max(most, `at most ${most} mm`);
const LONGEST_MM = 60_000;

const Shape = { shape: z.enum(CUT_SHAPES), cornerMm: mm(0, 500) };
const Art = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('plain'), ...Shape }),
  z.object({
    kind: z.literal('picture'),
    fileId: Id,
    fileName: FileName,
    widthPx: z.number().int().min(1).max(100_000),
    heightPx: z.number().int().min(1).max(100_000),
    ...Shape,
  }),
  z.object({
    kind: z.literal('drawing'),
    fileId: Id,
    fileName: FileName,
    cutBy: z.enum(['colour', 'layer']),
    cutNames: z.array(z.string().max(200)).max(50),
    scoreNames: z.array(z.string().max(200)).max(50).default([]),
    cutFrom: z.enum(CUT_SOURCES),
    keepsHoles: z.boolean(),
  }),
]);

const Item = z.object({
  id: Id,
  name: Name,
  quantity: z.number().int('a whole number').min(1, 'at least 1').max(100_000, 'at most 100,000'),
  widthMm: mm(1, 5000),
  lengthMm: mm(1, 20_000),
  mayTurn: z.boolean(),
  art: Art,
});

/** A job as it is being laid out: everything that the screen holds, so that nothing typed is lost. */
export const Draft = z.object({
  laysOut: z.enum(['here', 'program']),
  form: z.enum(['sheet', 'roll']),
  page: z.object({ name: z.string().max(80), widthMm: mm(30, 5000), lengthMm: mm(30, LONGEST_MM) }),
  insetMm: mm(0, 500),
  backInsetMm: mm(0, 500).nullable(),
  isMirrored: z.boolean(),
  gapMm: mm(0, 500),
  spareFrontMm: mm(0, 5000),
  spareRearMm: mm(0, 5000),
  items: z.array(Item).max(20, 'at most 20 items'),
  artBox: z
    .object({ widthMm: mm(1, 5000), lengthMm: mm(1, LONGEST_MM), leftMm: mm(-500, 5000), topMm: mm(-500, LONGEST_MM) })
    .nullable(),
  edge: z.object({ kind: z.enum(EDGE_KINDS), mm: mm(0, 50) }),
  yieldShare: z.number().min(0.5, 'at least 50 %').max(0.999, 'at most 99.9 %'),
  warmingK: z.number().min(0, 'at least 0').max(60, 'at most 60 degrees'),
  worth: z.number().min(0, 'at least 0').max(1e9, 'at most 1,000,000,000').nullable().optional(),
}) satisfies z.ZodType<JobDraft>;

export const StartJob = z.object({ id: Id, setupId: Id, materialId: Id, name: Name });
export type StartJobInput = z.infer<typeof StartJob>;

export const KeepDraft = z.object({ jobId: Id, version: z.number().int(), name: Name, materialId: Id, draft: Draft });
export type KeepDraftInput = Omit<z.infer<typeof KeepDraft>, 'draft'> & { readonly draft: JobDraft };

const Fingerprint = z.object({
  name: FileName.min(1),
  bytes: z.number().int().min(0).max(1e13),
  sha256: z.string().regex(/^[0-9a-f]{64}$/, '64 hexadecimal digits'),
});
export type FileFingerprint = z.infer<typeof Fingerprint>;

export const LockJob = z.object({ id: Id, jobId: Id, version: z.number().int(), ownFile: Fingerprint.nullable() });
export type LockJobInput = z.infer<typeof LockJob>;

export const PrintedJob = z.object({
  id: Id,
  jobId: Id,
  sheets: z.number().int('a whole number').min(1, 'at least 1').max(100_000),
  /** Minutes ago; 0 for just now. */
  minutesAgo: z
    .number()
    .min(0, 'not in the future')
    .max(60 * 24 * 365),
});
export type PrintedJobInput = z.infer<typeof PrintedJob>;

/** A cut file is asked for: the changes that were shown are named, so that none slips in between. */
export const ReleaseCut = z.object({
  id: Id,
  jobId: Id,
  seenChanges: z.array(z.string().max(1000)).max(100),
  /** Of a layout of the program's own: its saved file, dropped in again; null where it was laid out here. */
  ownFile: Fingerprint.nullable(),
  /** How the sheet lies in the machine; null for as the last check sheet lay. */
  turnDeg: z.union([z.literal(0), z.literal(90), z.literal(180), z.literal(270)]).nullable(),
  /** Which lines the file holds: all in one, or scored and cut lines each in a file of their own, the tool changed between. */
  lines: z.enum(LINE_CHOICES),
  /** Tool that scores; only where a file holds scored lines. */
  scoreTool: z.number().int('a whole number').min(1, 'at least 1').max(8, 'at most 8'),
  /** What lies on or under the material as it is cut; empty: as it was printed. */
  stack: Stack.default(''),
  /** "Same file, nothing moved" was answered with yes. */
  isUnmoved: z.boolean(),
});
export type ReleaseCutInput = z.input<typeof ReleaseCut>;

export const TellResult = z.object({
  id: Id,
  jobId: Id,
  good: z.number().int('a whole number').min(0, 'at least 0').max(1e6),
  spoiled: z.number().int('a whole number').min(0, 'at least 0').max(1e6),
  spoiledCost: z.number().min(0, 'at least 0').max(1e9, 'at most 1,000,000,000'),
  note: z.string().trim().max(500, 'at most 500 letters'),
  /** How the eye found the marks; null: not told. */
  marks: MarksRead.nullable().default(null),
});
export type TellResultInput = z.input<typeof TellResult>;

export const ArchiveJob = z.object({
  jobId: Id,
  reason: z.string().trim().min(3, 'a reason, in a few words').max(200),
});
export const OnlyJob = z.object({ jobId: Id });
export const CopyJob = z.object({ id: Id, jobId: Id });

/** Layout without shop or database: a draft, the page it stands on, and its drawings as text, by their id. */
export const ComputeLayout = z.object({
  draft: Draft,
  margins: z.object({ leftMm: mm(0, 500), rightMm: mm(0, 500), topMm: mm(0, 500), bottomMm: mm(0, 500) }),
  marks: z.object({
    kind: z.enum(MARK_KINDS),
    sizeMm: mm(0, 500),
    keepOutMm: mm(0, 500),
    edgeMinMm: mm(0, 500),
  }),
  drawings: z.record(Id, z.string().max(64 * 1024 * 1024)).default({}),
});
export type ComputeLayoutInput = z.infer<typeof ComputeLayout>;
