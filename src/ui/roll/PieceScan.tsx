'use client';

import { useState } from 'react';
import { combineScans, type ScannedDisc } from '@/core/scan/combine-scans';
import { placed, placeName, placesOf, type PiecesFrom } from '@/core/scan/placed-pieces';
import type { ScanResult } from '@/core/scan/scan-result';
import { stationFigures } from '@/core/scan/station-figures';
import type { RollStrip } from '@/core/target/roll-strip';
import { codeCycle } from '@/core/target/station-disc';
import type { UnitSystem } from '@/core/units/length';
import { DiscCloseUp } from '../scan/DiscCloseUp';
import { DiscTable } from '../scan/DiscTable';
import { ScanDrop } from '../scan/ScanDrop';
import { ScanList } from '../scan/ScanList';
import { ScanPicture } from '../scan/ScanPicture';
import { shownJob } from '../scan/shown-job';
import type { ShownDisc } from '../scan/scan-view';
import { useScans, type ScanJob } from '../scan/use-scans';
import { piecesLine, pieceDoubtWords, pieceFailureWords, pieceTodo } from './piece-words';
import { PiecesFromForm } from './PiecesFromForm';
import { StandInPieces } from './StandInPieces';
import { UsePieces } from './UsePieces';

export interface PieceScanView {
  readonly rollId: string;
  readonly strip: RollStrip;
  readonly system: UnitSystem;
  /** Where the stand-in scanner of a simulated roll is asked. */
  readonly standInHref: string | null;
}

/** A measured scan and where its pieces come from. */
interface Read {
  readonly job: ScanJob;
  readonly result: ScanResult;
  readonly from: PiecesFrom;
}

/** Copied pieces of the next scan follow those of the one before, until something else is said. */
function readsOf(
  jobs: readonly ScanJob[],
  { form, sides }: RollStrip,
  said: Readonly<Record<string, PiecesFrom>>,
): readonly Read[] {
  const reads: Read[] = [];
  let next: PiecesFrom = { firstNo: 1, every: 1 };
  for (const job of jobs) {
    if (!job.measured) continue;
    const { result } = job.measured;
    const from = said[job.id] ?? next;
    reads.push({ job, result, from });
    const stations = Math.ceil(result.discs.length / sides.length);
    next = form === 'piece' ? { ...from, firstNo: from.firstNo + stations * from.every } : from;
  }
  return reads;
}

/** Discs of a scan under the names of their places. */
function shownOf(strip: RollStrip, { result, from }: Read): readonly (ShownDisc & { readonly place: string | null })[] {
  const [figure] = stationFigures(strip);
  const places = placesOf(
    strip,
    result.discs.map((d) => d.key),
    from,
  );
  return result.discs.flatMap(({ key }, i) => {
    const place = places[i];
    const short = place ? `${place.stationNo}${place.side.slice(0, 1).toUpperCase()}` : '?';
    const name = place ? `Station ${placeName(place)}` : 'No station';
    return figure ? [{ key, name, short, figure: { ...figure, key }, place: place ? placeName(place) : null }] : [];
  });
}

const alongRoll = (discs: readonly ScannedDisc[]): readonly ScannedDisc[] =>
  discs.toSorted((a, b) => a.key.localeCompare(b.key, 'en', { numeric: true }));

/** A station's wedges stand elsewhere: the eye did not read its disc. */
const NO_EYE = { across: null, along: null };

interface FoundProps {
  readonly view: PieceScanView;
  readonly reads: readonly Read[];
  readonly chosen: string | null;
  readonly onChoose: (place: string) => void;
}

/** What the scans so far tell together. */
function Found({ view, reads, chosen, onChoose }: FoundProps) {
  const { strip, system, rollId } = view;
  const [leftOut, setLeftOut] = useState<ReadonlySet<string>>(new Set());
  const results = reads.map(({ result, from }) => placed(strip, result, from));
  const astray = reads.reduce((n, { result }, i) => n + result.discs.length - (results[i]?.discs.length ?? 0), 0);
  const combined = combineScans(results);
  const discs = alongRoll(combined.discs);
  return (
    <>
      {astray > 0 && (
        <p className="notice">
          {`${astray === 1 ? 'One disc belongs' : `${astray} discs belong`} to no station of this roll, which has ${strip.stations}: look at the first station that is typed.`}
        </p>
      )}
      <DiscTable
        label="Stations in these scans"
        rows={discs.map((disc) => ({ disc, label: disc.key, eyeMm: NO_EYE, todo: pieceTodo(disc.state) }))}
        {...{ place: 'station', cutShape: 'hole', leftOut, chosen, system, onChoose }}
        onLeaveOut={(key, isOut) => {
          setLeftOut(new Set(isOut ? [...leftOut, key] : [...leftOut].filter((k) => k !== key)));
        }}
      />
      {combined.atOdds && (
        <p className="notice" role="alert">
          {`These scans differ by more than they should, most at station ${combined.atOdds.key}: is each of them of the stations that stand beside it? A piece that did not lie flat does it, too. Their doubt was made larger.`}
        </p>
      )}
      <p>{pieceDoubtWords(combined, system)}</p>
      <UsePieces rollId={rollId} sides={strip.sides} discs={discs} leftOut={leftOut} />
    </>
  );
}

const Steps = () => (
  <div className="bed">
    <h2>Pieces on the scanner</h2>
    <ol className="scan-steps">
      <li>Machine at a standstill: weed the round in every disc as well, and cut the stations apart with scissors.</li>
      <li>Lay them on the glass, printed face down, as many as have room, not touching; close the lid.</li>
      <li>Scan at 300 dpi, gray, with no sharpening, as PNG or TIFF, and drop the picture here.</li>
    </ol>
  </div>
);

interface LookProps {
  readonly view: PieceScanView;
  readonly job: ScanJob;
  readonly read: Read | undefined;
  readonly chosen: string | null;
  readonly onChoose: (place: string | null) => void;
}

/** One scan with its stations, and the one that is chosen magnified. */
function Look({ view: { strip, system }, job, read, chosen, onChoose }: LookProps) {
  const shown = read ? shownOf(strip, read) : [];
  const own = shown.find((s) => s.place !== null && s.place === chosen);
  const disc = read?.result.discs.find((d) => d.key === own?.key);
  return (
    <>
      <ScanPicture
        job={job}
        own={shown}
        chosen={own?.key ?? null}
        onChoose={(key) => {
          onChoose(shown.find((s) => s.key === key)?.place ?? null);
        }}
      />
      {own && disc && <DiscCloseUp own={own} disc={disc} href={job.closeUps[own.key]} system={system} />}
    </>
  );
}

/** Pieces of a roll on the scanner: dropped in, measured in the browser, looked at, used. */
export function PieceScan({ view }: { readonly view: PieceScanView }) {
  const { strip, standInHref } = view;
  const [figures] = useState(() => stationFigures(strip));
  const scans = useScans({ figures, lay: 'pieces' }, { objectionTo: () => null, failure: pieceFailureWords });
  const [said, setSaid] = useState<Readonly<Record<string, PiecesFrom>>>({});
  const [chosen, setChosen] = useState<string | null>(null);
  const reads = readsOf(scans.jobs, strip, said);
  const job = shownJob(scans.jobs);
  const isCopied = strip.form === 'piece';
  const asked = isCopied || strip.stations > codeCycle(strip) ? reads : [];
  return (
    <div className="scan-station">
      <div>
        {job ? (
          <Look {...{ view, job, chosen }} read={reads.find((r) => r.job === job)} onChoose={setChosen} />
        ) : (
          <Steps />
        )}
      </div>
      <div>
        <ScanList scans={scans} lineOf={piecesLine} />
        {asked.map(({ job: { id, file }, from }) => (
          <PiecesFromForm
            key={id}
            fileName={file.name}
            from={from}
            isCopied={isCopied}
            onChange={(now) => {
              setSaid({ ...said, [id]: now });
            }}
          />
        ))}
        {reads.length > 0 && <Found view={view} reads={reads} chosen={chosen} onChoose={setChosen} />}
        <ScanDrop
          onFiles={scans.add}
          first="Drop the scan here, or choose it"
          another={reads.length > 0 ? 'Another scan: more pieces, or the same turned by half' : null}
          help="PNG, TIFF or JPEG; any number of pieces, each lying any way."
        />
        {standInHref && (
          <StandInPieces
            href={standInHref}
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
