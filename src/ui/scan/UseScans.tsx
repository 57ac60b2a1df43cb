'use client';

import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import { v4 as uuid } from 'uuid';
import type { SaveScanInput } from '@/contracts/inputs';
import type { KeptPrintSize } from '@/contracts/print-size';
import type { CombinedScans } from '@/core/scan/combine-scans';
import { MOST_SCANS } from '@/core/scan/scan-result';
import { isMeasured } from '@/core/scan/disc-measure';
import { MM_PER_INCH } from '@/core/units/length';
import { scanMeasured } from '@/server/actions/calibration';
import { sendOriginals } from './send-originals';
import { figureWord } from './state-words';
import type { ScanView } from './scan-view';
import type { ScanJob } from './use-scans';

interface Props {
  readonly view: ScanView;
  readonly jobs: readonly ScanJob[];
  readonly combined: CombinedScans;
  readonly leftOut: ReadonlySet<string>;
  readonly printSize: KeptPrintSize | null;
}

/** Fewer do not tell scale, turn and squareness with anything to spare. */
const LEAST_DISCS = 4;
const MOST_PICTURE_BYTES = 650_000;

/** A picture's bytes as base64; null when it would be too large to keep. */
async function base64Of(blob: Blob | undefined): Promise<string | null> {
  if (!blob || blob.size > MOST_PICTURE_BYTES) return null;
  const bytes = new Uint8Array(await blob.arrayBuffer());
  const parts: string[] = [];
  for (let i = 0; i < bytes.length; i += 0x8000) parts.push(String.fromCharCode(...bytes.subarray(i, i + 0x8000)));
  return btoa(parts.join(''));
}

/** The discs that count, as they are kept. */
function discsOf({ view, combined, leftOut }: Pick<Props, 'view' | 'combined' | 'leftOut'>): SaveScanInput['discs'] {
  return view.discs.flatMap(({ key, spotNo }) => {
    const disc = combined.discs.find((d) => d.key === key);
    if (!disc || leftOut.has(key) || !isMeasured(disc.state)) return [];
    const { acrossMm, alongMm, acrossSdMm, alongSdMm, acrossSharedMm, alongSharedMm } = disc;
    return [
      {
        ...{ acrossId: uuid(), alongId: uuid(), spotNo, state: disc.state },
        ...{ acrossMm, alongMm, acrossSdMm, alongSdMm, acrossSharedMm, alongSharedMm },
      },
    ];
  });
}

const measuredJobs = (jobs: readonly ScanJob[]): readonly ScanJob[] =>
  jobs.filter(({ measured }) => measured !== null).slice(0, MOST_SCANS);

const scansOf = (jobs: readonly ScanJob[]): SaveScanInput['scans'] =>
  measuredJobs(jobs).flatMap(({ file, measured }) => {
    if (!measured) return [];
    const { pixelsPerMm, turnDeg, isMirrored, discs } = measured.result;
    const goodCount = discs.filter((d) => d.state === 'good').length;
    return [
      { fileName: file.name.slice(0, 200), dotsPerInch: pixelsPerMm * MM_PER_INCH, turnDeg, isMirrored, goodCount },
    ];
  });

/** What is told, without the ids that differ every time. */
const wordsOf = ({ discs, printSize }: SaveScanInput): string =>
  JSON.stringify([discs.map((d) => [d.spotNo, d.acrossMm, d.alongMm]), printSize]);

interface KeepOriginalsProps {
  readonly files: readonly File[];
  readonly isChosen: boolean;
  readonly onChoose: (isChosen: boolean) => void;
}

/** A small picture is always kept; whether the original is, is for the operator to say. */
function KeepOriginals({ files, isChosen, onChoose }: KeepOriginalsProps) {
  const megabytes = files.reduce((sum, { size }) => sum + size, 0) / 1e6;
  return (
    <label className="d-flex gap-2 align-items-start mb-3">
      <input
        type="checkbox"
        className="form-check-input flex-shrink-0"
        checked={isChosen}
        onChange={(e) => {
          onChoose(e.target.checked);
        }}
      />
      {`Keep the ${files.length === 1 ? 'original' : 'originals'} too, ${megabytes.toFixed(1)} MB; otherwise a small picture is kept`}
    </label>
  );
}

/** Takes what the scans tell into the calibration. */
export function UseScans({ view, jobs, combined, leftOut, printSize }: Props) {
  const router = useRouter();
  const [isSending, setSending] = useState(false);
  const [keepsOriginals, setKeepsOriginals] = useState(false);
  const [sentCount, setSentCount] = useState(0);
  const files = measuredJobs(jobs).map(({ file }) => file);
  const [refusal, setRefusal] = useState<string | null>(null);
  /** The same answer sent twice, after one that got lost, is kept once. */
  const sent = useRef<SaveScanInput | null>(null);
  const count = discsOf({ view, combined, leftOut }).length;
  const keep = async (): Promise<void> => {
    setSending(true);
    setRefusal(null);
    const fresh: SaveScanInput = {
      id: uuid(),
      cutSetId: view.cutSetId,
      face: view.face,
      scans: scansOf(jobs),
      discs: discsOf({ view, combined, leftOut }),
      printSize,
      picture: await base64Of(jobs.find((j) => j.measured)?.preview?.blob),
    };
    sent.current = sent.current && wordsOf(sent.current) === wordsOf(fresh) ? sent.current : fresh;
    try {
      const done = await scanMeasured(sent.current);
      if (!done.ok) setRefusal(done.message);
      else {
        const place = { calibrationId: view.calibrationId, scanId: sent.current.id };
        const lost = keepsOriginals ? await sendOriginals(place, files, setSentCount) : null;
        if (lost === null) router.push(view.next.href);
        else setRefusal(`The readings are kept, but not every original. ${lost}. Try again, or go on without it.`);
      }
    } catch {
      setRefusal('The shop\u2019s server does not answer. Nothing is lost: try again in a moment.');
    }
    setSending(false);
  };
  return (
    <>
      {refusal && (
        <p className="notice" role="alert">
          {refusal}
        </p>
      )}
      <KeepOriginals files={files} isChosen={keepsOriginals} onChoose={setKeepsOriginals} />
      {isSending && keepsOriginals && (
        <p className="quiet" role="status">{`${sentCount} of ${files.length} originals are kept.`}</p>
      )}
      <p>
        <button
          type="button"
          className="btn btn-primary"
          disabled={isSending || count < LEAST_DISCS}
          onClick={() => void keep()}
        >
          {`Use these ${count} ${figureWord(view.cutShape)}s`}
        </button>
      </p>
      {count < LEAST_DISCS && (
        <p className="quiet">{`At least ${LEAST_DISCS} are needed: scan again, or read by eye.`}</p>
      )}
    </>
  );
}
