'use client';

import { useState } from 'react';
import { meanDisc, readDiscs, type DiscShift } from '@/core/reading/disc-check';
import { isMeasured } from '@/core/scan/disc-measure';
import { discShifts, templateFigures } from '@/core/scan/measure-template-discs';
import { fromPieceKey } from '@/core/scan/measure-pieces';
import type { ScanResult } from '@/core/scan/scan-result';
import { TEMPLATE_DISC_NOS, templateDiscOf, type TemplateDiscNo } from '@/core/target/template-discs';
import { formatLength, MM_PER_INCH, type UnitSystem } from '@/core/units/length';
import { discCheckKept } from '@/server/actions/trust';
import type { ScanFailure } from '@/workers/scan.client';
import { DiscCloseUp } from '../scan/DiscCloseUp';
import { ScanDrop } from '../scan/ScanDrop';
import { ScanList } from '../scan/ScanList';
import { ScanPicture } from '../scan/ScanPicture';
import type { ShownDisc } from '../scan/scan-view';
import { failureWords } from '../scan/scan-words';
import { shownJob } from '../scan/shown-job';
import { stateWords } from '../scan/state-words';
import { useScans, type ScanJob } from '../scan/use-scans';
import type { DailyPlace } from './daily-place';
import { KeepBar } from './KeepBar';
import { StandInPicture } from './StandInPicture';
import { useKeptCheck } from './use-kept-check';

function discFailureWords(failure: ScanFailure): string {
  if ('kind' in failure && (failure.kind === 'no-discs' || failure.kind === 'other-pieces'))
    return 'Neither of the two small discs was found in it. Are they in the picture, in focus, weeded, and lit? A scan at 300 dpi, or a photo from near enough that a disc is 100 pixels wide.';
  return failureWords(failure);
}

const lineOf = ({ pixelsPerMm, discs }: ScanResult): string =>
  `${Math.round(pixelsPerMm * MM_PER_INCH)} dpi: ${discs.filter((d) => isMeasured(d.state)).length} of ${discs.length} discs measured.`;

/** Discs of a picture under their names; the same one may lie there more than once. */
const shownOf = ({ discs }: ScanResult): readonly ShownDisc[] =>
  discs.flatMap(({ key }) => {
    const discNo = templateDiscOf(fromPieceKey(key).codeNo);
    const figure = templateFigures[0];
    return figure && discNo !== null
      ? [{ key, name: `Disc ${discNo}`, short: String(discNo), figure: { ...figure, key } }]
      : [];
  });

function Look({ job, system }: { readonly job: ScanJob; readonly system: UnitSystem }) {
  const [chosen, setChosen] = useState<string | null>(null);
  const result = job.measured?.result;
  const shown = result ? shownOf(result) : [];
  const own = shown.find((s) => s.key === chosen) ?? shown[0];
  const disc = result?.discs.find((d) => d.key === own?.key);
  return (
    <>
      <ScanPicture job={job} own={shown} chosen={own?.key ?? null} onChoose={setChosen} />
      {own && disc && <DiscCloseUp own={own} disc={disc} href={job.closeUps[own.key]} system={system} />}
    </>
  );
}

interface DiscLineProps {
  readonly discNo: TemplateDiscNo;
  readonly shift: DiscShift | null;
  /** What is wrong with it where it was seen and not measured. */
  readonly todo: string | null;
  readonly system: UnitSystem;
}

function DiscLine({ discNo, shift, todo, system }: DiscLineProps) {
  if (!shift) return <li>{`Disc ${discNo}: ${todo ?? 'not seen yet.'}`}</li>;
  return (
    <li>
      {`Disc ${discNo}: `}
      <span className="figures">{`${formatLength(shift.acrossMm, system)} across, ${formatLength(shift.alongMm, system)} along`}</span>
    </li>
  );
}

/** Where the discs come from, and how they are used. */
const Steps = ({ setupId }: { readonly setupId: string }) => (
  <ol className="steps">
    <li>
      Once: place both discs in the template of your jobs at their full size, one near the end that goes first and one
      far from it, and cut their lines with the job.{' '}
      {TEMPLATE_DISC_NOS.map((discNo) => (
        <span key={discNo} className="me-3 text-nowrap">
          {`Disc ${discNo}: `}
          <a href={`/setups/${setupId}/daily/discs/${discNo}`} download>
            SVG
          </a>{' '}
          <a href={`/setups/${setupId}/daily/discs/${discNo}?as=pdf`} download>
            PDF
          </a>
        </span>
      ))}
    </li>
    <li>
      Machine at a standstill: lift the round out of both discs of a cut sheet, so that the light liner or white card
      shows.
    </li>
    <li>
      Scan the sheet at 300 dpi, or photograph it flat from straight above; where it is long, one picture of each disc.
    </li>
  </ol>
);

/** What pictures so far tell of the two discs. */
function discsIn(jobs: readonly ScanJob[]) {
  const results = jobs.flatMap(({ measured }) => (measured ? [measured.result] : []));
  const all = results.flatMap(discShifts);
  const lines = TEMPLATE_DISC_NOS.map((discNo) => {
    const bad = results
      .flatMap(({ discs }) => discs)
      .find((d) => templateDiscOf(fromPieceKey(d.key).codeNo) === discNo && !isMeasured(d.state));
    const looks = all.filter((s) => s.discNo === discNo);
    return { discNo, shift: meanDisc(discNo, looks), todo: bad ? stateWords(bad.state, 'hole').todo : null };
  });
  const [one, other] = lines.map(({ shift }) => shift);
  return { hasResults: results.length > 0, lines, one, other, reading: one && other ? readDiscs(one, other) : null };
}

/** The two small discs that are kept beside the work: measured on a scan or photo, looked at, kept. */
export function DiscCheck({ setupId, materialId, toleranceMm, system, isSimulated }: DailyPlace) {
  const [figures] = useState(templateFigures);
  const scans = useScans({ figures, lay: 'template' }, { objectionTo: () => null, failure: discFailureWords });
  const check = useKeptCheck();
  const job = shownJob(scans.jobs);
  const { hasResults, lines, one, other, reading } = discsIn(scans.jobs);
  const keep = (): void => {
    check.keep(
      (id) => discCheckKept({ id, setupId, materialId, one, other, note: '' }),
      () => {
        for (const { id } of scans.jobs) scans.remove(id);
      },
    );
  };
  const keepBar = (hasResults || check.told !== null) && (
    <KeepBar {...{ check, system }} where="half way between the two" shift={reading?.shift ?? null} onKeep={keep} />
  );
  return (
    <section aria-label="Two small discs">
      {job ? <Look job={job} system={system} /> : <Steps setupId={setupId} />}
      <ScanList scans={scans} lineOf={lineOf} />
      {hasResults && (
        <ul className="scan-list" aria-label="The discs">
          {lines.map((line) => (
            <DiscLine key={line.discNo} {...line} system={system} />
          ))}
        </ul>
      )}
      {reading && reading.apartMm > toleranceMm && (
        <p className="notice">
          {`The two discs differ by ${formatLength(reading.apartMm, system)}: besides the shift, the scale or turn of this sheet is in it. Where another load shows it as well, a quick check tells which.`}
        </p>
      )}
      {keepBar}
      <ScanDrop
        onFiles={scans.add}
        first="Drop the scan or photo here, or take it"
        another={hasResults ? 'Another picture' : null}
        help="PNG, TIFF or JPEG."
      />
      {isSimulated && (
        <StandInPicture
          href={`/setups/${setupId}/daily/picture?of=discs`}
          words="This setup is simulated, and so is its scanner: the sheet of a job with both discs, cut with what the machine makes of its marks now."
          button="Scan the sheet"
          isBusy={scans.isBusy}
          onFile={(file) => {
            scans.add([file]);
          }}
        />
      )}
    </section>
  );
}
