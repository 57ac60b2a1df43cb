'use client';

import Link from 'next/link';
import { useState } from 'react';
import { combineScans, type CombinedScans } from '@/core/scan/combine-scans';
import type { ScanResult } from '@/core/scan/scan-result';
import { firstAsked, keptPrintSize, lengthEnds } from './asked-length';
import { DiscCloseUp } from './DiscCloseUp';
import { DiscTable, type TableDisc } from './DiscTable';
import { PrintSize } from './PrintSize';
import { ScanDrop } from './ScanDrop';
import { ScanList } from './ScanList';
import { ScanPicture } from './ScanPicture';
import { ScanSteps } from './ScanSteps';
import { shownDisc, type ScanView } from './scan-view';
import { doubtWords, faceWords, failureWords, nothingCutWords, oddsWords, scanLine } from './scan-words';
import { shownJob } from './shown-job';
import { figureWord, stateWords } from './state-words';
import { StandinScanner } from './StandinScanner';
import { UseScans } from './UseScans';
import { useScans, type ScanJob } from './use-scans';

const resultsOf = (jobs: readonly ScanJob[]): readonly ScanResult[] =>
  jobs.flatMap(({ measured }) => (measured ? [measured.result] : []));

interface ResultsProps {
  readonly view: ScanView;
  readonly jobs: readonly ScanJob[];
  readonly combined: CombinedScans;
  readonly chosen: string | null;
  readonly onChoose: (key: string) => void;
}

/** The set's discs in their order, as the scans tell them. */
const rowsOf = ({ discs: own, cutShape }: ScanView, { discs }: CombinedScans): readonly TableDisc[] =>
  own.flatMap(({ key, spotNo, eyeMm }) => {
    const disc = discs.find((d) => d.key === key);
    return disc ? [{ disc, label: String(spotNo), eyeMm, todo: stateWords(disc.state, cutShape).todo }] : [];
  });

/** What the scans so far tell together, and what to do with it. */
function Results({ view, jobs, combined, chosen, onChoose }: ResultsProps) {
  const nothingCut = nothingCutWords(combined.discs, new Set(view.discs.map((d) => d.key)), {
    cutShape: view.cutShape,
    hasRough: view.roughHref !== null,
  });
  const odds = oddsWords(combined, view.discs);
  const [leftOut, setLeftOut] = useState<ReadonlySet<string>>(new Set());
  const scans = resultsOf(jobs);
  const word = figureWord(view.cutShape);
  const [asked, setAsked] = useState(() => firstAsked(lengthEnds(view)));
  return (
    <>
      <DiscTable
        label={`${word.slice(0, 1).toUpperCase()}${word.slice(1)}s of this cut`}
        rows={rowsOf(view, combined)}
        {...{ place: 'spot', cutShape: view.cutShape, leftOut, chosen, system: view.system, onChoose }}
        onLeaveOut={(key, isOut) => {
          setLeftOut(new Set(isOut ? [...leftOut, key] : [...leftOut].filter((k) => k !== key)));
        }}
      />
      {nothingCut && (
        <p className="notice" role="alert">
          {nothingCut}{' '}
          {view.roughHref && (
            <Link className="btn btn-primary" href={view.roughHref} prefetch={false}>
              Read the rough position
            </Link>
          )}
        </p>
      )}
      {odds && (
        <p className="notice" role="alert">
          {odds}
        </p>
      )}
      <p>{doubtWords(scans, combined, view.system)}</p>
      <PrintSize view={view} scans={scans} asked={asked} onAsk={setAsked} />
      <UseScans
        view={view}
        jobs={jobs}
        combined={combined}
        leftOut={leftOut}
        printSize={keptPrintSize(view, scans, asked)}
      />
    </>
  );
}

const OF_SHEETS = {
  first: 'Drop the scan or photograph here, or choose it',
  help: 'PNG, TIFF or JPEG; scans of the whole sheet or overlapping parts, or photographs; any turn.',
};
/** Loose pieces are measured on a scanner only. */
const OF_PIECES = {
  first: 'Drop the scan here, or choose it',
  help: 'PNG, TIFF or JPEG; all discs in one scan or some in each.',
};

/** A cut sheet on the scanner: dropped in, measured in the browser, looked at, used. */
export function ScanStation({ view }: { readonly view: ScanView }) {
  const scans = useScans(
    { figures: view.figures, lay: 'sheet', others: view.others },
    { objectionTo: (result) => faceWords(result, view), failure: (failure) => failureWords(failure, view.code) },
  );
  const [chosen, setChosen] = useState<string | null>(null);
  const job = shownJob(scans.jobs);
  const results = resultsOf(scans.jobs);
  const combined = results.length > 0 ? combineScans(results) : null;
  const own = view.discs.find((d) => d.key === chosen);
  const measured = job?.measured;
  const disc = measured?.result.discs.find((d) => d.key === chosen);
  return (
    <div className="scan-station">
      <div>
        {job ? (
          <ScanPicture job={job} own={view.discs.map(shownDisc)} chosen={chosen} onChoose={setChosen} />
        ) : (
          <ScanSteps cutShape={view.cutShape} />
        )}
        {own && disc && measured && (
          <DiscCloseUp own={shownDisc(own)} disc={disc} href={job.closeUps[own.key]} system={view.system} />
        )}
      </div>
      <div>
        <ScanList scans={scans} lineOf={(result) => scanLine(result, new Set(view.discs.map((d) => d.key)))} />
        {combined && <Results view={view} jobs={scans.jobs} combined={combined} chosen={chosen} onChoose={setChosen} />}
        <ScanDrop
          onFiles={scans.add}
          another={results.length > 0 ? 'Another one of the same cut' : null}
          {...(view.cutShape === 'edge' ? OF_PIECES : OF_SHEETS)}
        />
        {view.standin && (
          <StandinScanner
            standin={view.standin}
            isBusy={scans.isBusy}
            onScan={(file) => {
              scans.add([file]);
            }}
          />
        )}
      </div>
    </div>
  );
}
