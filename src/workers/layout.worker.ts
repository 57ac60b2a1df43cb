import { expose } from 'comlink';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { errorBudget, budgetEdge, type ErrorBudget } from '@/core/budget/error-budget';
import {
  EDGE_DRAWS,
  edgeFor,
  forecastEdge,
  shareBeyond,
  type EdgePiece,
  type JobError,
} from '@/core/budget/edge-forecast';
import { seededRng } from '@/core/math/random';
import type { JobItem, JobEdge } from '@/core/layout/job-draft';
import { fail, ok, type Result } from '@/core/result';
import { problem, type FileProblem } from '@/formats/cut-file/cut-file';
import { readArtwork, type Artwork } from '@/formats/svg/read-artwork';
import type { LinePaint } from '@/formats/vector-drawing';
import { pathWriter } from '@/shapes/picture-path';
import { naturalBox, prepareItem } from '@/shapes/prepare-item';
import type { PreparedItem } from '@/shapes/prepared-item';

/** A colour or a layer of a drawing, and how many shapes it has. */
export interface ArtGroup {
  readonly by: 'colour' | 'layer';
  readonly name: string;
  readonly shapes: number;
}

/** What a drawing turned out to hold. */
export interface ArtSurvey {
  readonly groups: readonly ArtGroup[];
  readonly widthMm: number;
  readonly lengthMm: number;
  readonly remarks: readonly string[];
}

/** An item as a picture draws it: paths as SVG writes them, y up, in its cell. */
export interface ItemView extends Omit<PreparedItem, 'cuts' | 'scores' | 'shapes'> {
  readonly cutPath: string;
  readonly scorePath: string;
  readonly shapes: readonly {
    readonly path: string;
    readonly fill: string | null;
    readonly isEvenOdd: boolean;
    readonly stroke: LinePaint | null;
  }[];
}

/** What the next job's error means for an edge so wide. */
export interface EdgeAnswer {
  readonly pieceShare: number;
  readonly jobShare: number;
  /** Least edge for the wanted share of jobs, simulated, and by the budget at the worst place. */
  readonly neededMm: number;
  readonly budgetMm: number;
  readonly budget: ErrorBudget;
}

export interface EdgeQuestion {
  readonly error: JobError;
  readonly pieces: readonly EdgePiece[];
  readonly edgeMm: number;
  readonly yieldShare: number;
}

function viewOf({ cuts, scores, shapes, ...rest }: PreparedItem): ItemView {
  const all = [cuts, shapes.map((s) => s.commands)];
  const pathOf = pathWriter(all, Math.max(rest.cell.widthMm, rest.cell.lengthMm));
  return {
    ...rest,
    cutPath: cuts.map(pathOf).join(''),
    scorePath: scores.map(pathOf).join(''),
    shapes: shapes.map(({ commands, ...paint }) => ({ path: pathOf(commands), ...paint })),
  };
}

function counted(artwork: Artwork): readonly ArtGroup[] {
  const groups = new Map<string, ArtGroup>();
  for (const shape of artwork.shapes)
    for (const by of ['colour', 'layer'] as const) {
      const name = shape[by];
      const known = groups.get(`${by} ${name}`);
      groups.set(`${by} ${name}`, { by, name, shapes: (known?.shapes ?? 0) + 1 });
    }
  return [...groups.values()];
}

const GONE = problem('not-a-drawing', 'file', 'The drawing is not here any more: place it again.');

const artworks = new Map<string, Artwork>();

/** Reads drawings once, makes items ready, and reckons edges, off the page's own thread. */
const api = {
  /** @param cutNames which of its colours or layers are cut: its natural size is that of the rest. */
  read(fileId: string, text: string): Result<ArtSurvey, FileProblem> {
    const read = readArtwork(text);
    if (!read.ok) return read;
    artworks.set(fileId, read.value);
    const { widthMm, heightMm, remarks } = read.value;
    return ok({ groups: counted(read.value), widthMm, lengthMm: heightMm, remarks: remarks.map((r) => r.words) });
  },
  /** Size of a drawing's art without its cut lines; null where it has none. */
  naturalSize({ art }: JobItem): { readonly widthMm: number; readonly lengthMm: number } | null {
    const artwork = art.kind === 'drawing' ? artworks.get(art.fileId) : undefined;
    const box = artwork && art.kind === 'drawing' ? naturalBox(artwork, art) : null;
    return box && { widthMm: box.width, lengthMm: box.height };
  },
  prepare(
    item: JobItem,
    options: { readonly edge: JobEdge; readonly isMirrored: boolean },
    onProgress: (share: number) => void,
  ): Result<ItemView, FileProblem> {
    const artwork = item.art.kind === 'drawing' ? artworks.get(item.art.fileId) : null;
    if (artwork === undefined) return fail(GONE);
    return ok(viewOf(prepareItem({ item, ...options, artwork, onProgress })));
  },
  edge({ error, pieces, edgeMm, yieldShare }: EdgeQuestion): EdgeAnswer {
    const forecast = forecastEdge(error, pieces, seededRng(EDGE_DRAWS));
    const budget = errorBudget(error, pieces);
    const isRound = pieces.every((p) => p.isRound);
    return {
      pieceShare: shareBeyond(forecast.pieceNeedsMm, edgeMm),
      jobShare: shareBeyond(forecast.jobNeedsMm, edgeMm),
      neededMm: edgeFor(forecast.jobNeedsMm, yieldShare),
      budgetMm: budgetEdge(error, budget.place, isRound, yieldShare),
      budget,
    };
  },
  /** SHA-256 of a file, a stretch at a time: it stays in the browser. */
  async fingerprint(file: File, onProgress: (share: number) => void): Promise<string> {
    const hash = sha256.create();
    const STRETCH = 4 * 1024 * 1024;
    for (let at = 0; at < file.size; at += STRETCH) {
      hash.update(new Uint8Array(await file.slice(at, at + STRETCH).arrayBuffer()));
      onProgress(Math.min(1, (at + STRETCH) / file.size));
    }
    return bytesToHex(hash.digest());
  },
};
export type LayoutApi = typeof api;

expose(api);
