import Link from 'next/link';
import { scaleOf } from '@/core/target/sheet-definition';
import { MOST_LOOKS } from '@/contracts/inputs';
import { isInReach } from '@/core/cutting/rough';
import { formatLength } from '@/core/units/length';
import type { CutLine } from '@/core/shop/cut-lines';
import { changeView } from '@/server/services/change-view';
import { changedOnly, roughPlan } from '@/server/services/corrections';
import { codedOf, discsOf, isRead, looksOf, mainMethod } from '@/server/services/looks';
import { currentSets, doneSets, type CalibrationRecord, type CutSet, onSheet } from '@/server/services/record';
import { roughOf } from '@/server/services/rough';
import type { FineMethod } from '@/core/reading/methods';
import { COMB_REACH_MM } from '@/core/target/comb';
import { SCAN_REACH_MM } from '@/core/target/coded-figure';
import { SMALL_DISC_REACH_MM } from '@/core/target/disc';
import { LIFT_OFF_REACH_MM } from '@/core/target/lift-off';
import { WEDGE_REACH_MM } from '@/core/target/wedge';
import { RoughChoice } from '@/ui/calibration/RoughChoice';
import { LookFirst } from '@/ui/read/LookFirst';
import { ReadingListForm } from '@/ui/read/ReadingListForm';
import { RoughStation } from '@/ui/read/RoughStation';
import { RoundStation } from '@/ui/read/RoundStation';
import { FineStation, OtherWays } from './fine-station';
import { roughViewOf, wallViewOf } from './read-views';
import { BackOfDiscs, Scan } from './scan-looks';
import type { StepProps } from './step-props';
import { PageHeading } from '@/ui/components/PageHeading';

const WORDS_AFTER: Readonly<Record<CalibrationRecord['calibration']['kind'], string>> = {
  quick: 'All read: see the map',
  full: 'All read: see the map',
  which_way: 'All read: which way?',
  mark_use: 'All read: what are the marks used for?',
  two_faces: 'All read: now turn the discs over',
};

function nextAfterReading(record: CalibrationRecord, set: CutSet) {
  const { id, kind } = record.calibration;
  if (kind === 'which_way' && set.id === doneSets(record)[0]?.id)
    return { href: `/calibrations/${id}/read`, words: 'All read: now the second cut' };
  const isConfirming = set.purpose !== 'before' && set.purpose !== 'which_way';
  if (isConfirming) return { href: `/calibrations/${id}/confirm`, words: 'All read: the verdict' };
  return { href: `/calibrations/${id}/${kind === 'two_faces' ? 'read' : 'map'}`, words: WORDS_AFTER[kind] };
}

/** Which look at the figures an address asks for. */
function lookNoOf(query: StepProps['query']): number {
  const asked = Number(query.again ?? 1);
  return Number.isInteger(asked) && asked >= 1 && asked <= MOST_LOOKS ? asked : 1;
}

function Fine({ record, system, query, set }: StepProps & { readonly set: CutSet }) {
  const lookNo = lookNoOf(query);
  const start = query.spot && query.axis ? { spotNo: Number(query.spot), axis: query.axis } : null;
  return (
    <FineStation
      record={record}
      set={set}
      asked={{
        system,
        isBlind: set.purpose !== 'before' || lookNo > 1,
        lookNo,
        start,
        next: nextAfterReading(record, set),
      }}
    />
  );
}

function Rough({ record, system, set, query }: StepProps & { readonly set: CutSet }) {
  const { id } = record.calibration;
  const rough = roughOf(record);
  if (query.look === 'choose' && rough) {
    const { x, y } = rough.shift;
    const words = `${formatLength(x, system, true)} across and ${formatLength(y, system, true)} along, in the sheet\u2019s own directions`;
    if (isInReach(rough.shift)) {
      return (
        <p>
          {`The cut is ${words}: near enough for the fine figures. `}
          <Link className="btn btn-primary" href={`/calibrations/${id}/read?look=fine`} prefetch={false}>
            Read the fine figures
          </Link>
        </p>
      );
    }
    const changes = changedOnly(roughPlan(record, rough)).map((c) => changeView(c, record.setupRow.cutter));
    return <RoughChoice calibrationId={id} changes={changes} shiftWords={words} />;
  }
  return (
    <RoughStation
      view={roughViewOf(record, set, { href: `/calibrations/${id}/read?look=choose`, words: 'Now bring it near' })}
    />
  );
}

/** The newest set; in a which-way test the first of the two that is not read yet. */
function setToRead(record: CalibrationRecord): CutSet | undefined {
  const sets = currentSets(record);
  if (record.calibration.kind !== 'which_way') return sets.at(-1);
  return sets.find((s) => !isRead(record, s)) ?? sets.at(-1);
}

/** Front against back: the front of every disc is answered, so the backs are next. */
const isTurnedOver = (record: CalibrationRecord, set: CutSet): boolean =>
  record.calibration.kind === 'two_faces' && isRead(record, set);

/** How far each kind of figure shows the cut to be off. */
const REACH_MM: Readonly<Record<FineMethod, number>> = {
  wedge: WEDGE_REACH_MM,
  comb: COMB_REACH_MM,
  wall: SMALL_DISC_REACH_MM,
  rim: LIFT_OFF_REACH_MM,
  scan: SCAN_REACH_MM,
};

/** A whole set of readings typed, pasted or dropped in. */
function ListOfReadings({ record, query, set }: StepProps & { readonly set: CutSet }) {
  const looks = looksOf(record, set);
  const method = mainMethod(record);
  const { id } = record.calibration;
  const lookNo = lookNoOf(query);
  return (
    <>
      <PageHeading>Readings as a list</PageHeading>
      <ReadingListForm
        cutSetId={set.id}
        method={method}
        lookNo={lookNo}
        figures={looks.map(({ spotNo, axis }) => ({ spotNo, axis }))}
        reachMm={REACH_MM[method]}
        scale={scaleOf(record.definition)}
        next={nextAfterReading(record, set).href}
      />
      <p>
        <Link href={`/calibrations/${id}/read?look=fine&again=${lookNo}`} prefetch={false}>
          Match the pictures instead
        </Link>
      </p>
    </>
  );
}

const LOOK_TITLES: Readonly<Record<number, string>> = {
  1: 'Read each figure',
  2: 'A second look: read each figure as if for the first time',
  3: 'A third look: read each figure as if for the first time',
  4: 'A fourth look: read each figure as if for the first time',
};

/** The discs beside a set's wedges: a second way to measure the same cut, by caliper as well. */
function Discs({ record, system, query, set }: StepProps & { readonly set: CutSet }) {
  const asked = {
    system,
    isBlind: set.purpose !== 'before',
    lookNo: lookNoOf(query),
    start: query.spot ? { spotNo: Number(query.spot), axis: 'across' as const } : null,
    next: nextAfterReading(record, set),
  };
  return (
    <>
      <PageHeading className="station-title">Read the discs, or measure their walls</PageHeading>
      <RoundStation key={`${set.id} discs`} view={wallViewOf(record, set, asked)} />
    </>
  );
}

function FineFigures({ set, ...props }: StepProps & { readonly set: CutSet }) {
  const lookNo = lookNoOf(props.query);
  return (
    <>
      <PageHeading className="station-title">
        {LOOK_TITLES[lookNo] ?? 'Another look: read each figure as if for the first time'}
      </PageHeading>
      <Fine {...props} set={set} />
      <OtherWays record={props.record} set={set} lookNo={lookNo} />
    </>
  );
}

/** What to do before the first look, and what to look for. */
const FIRST_LOOK: Readonly<Record<CutLine, { readonly title: string; readonly words: string }>> = {
  weeded: {
    title: 'First look: is every weeded strip between its two dark wedges?',
    words:
      'Lift the strips out (take hold, pull slowly, account for every piece). Bend the carrier away, not the paper.',
  },
  rubbed: {
    title: 'First look: does the long middle slit of each comb cross its printed ruler?',
    words:
      'Rub a soft pencil or a marker over the slits and wipe the rest off. Keep the dust from your eyes and out of the machine; feel nothing while the sheet is loaded.',
  },
  pen: {
    title: 'First look: does the long middle line of each comb cross its printed ruler?',
    words: 'Let the ink dry, and take the sheet off its carrier only if it lies flat by itself.',
  },
};

/** Before the fine figures: are they in reach at all? */
function FirstLook({ record, hasCoded }: Pick<StepProps, 'record'> & { readonly hasCoded: boolean }) {
  const { id, cutLine } = record.calibration;
  const { title, words } = FIRST_LOOK[cutLine];
  return (
    <>
      <PageHeading>{title}</PageHeading>
      <p>{words}</p>
      <LookFirst
        figure={cutLine === 'weeded' ? 'wedge' : 'comb'}
        fineHref={`/calibrations/${id}/read?look=fine`}
        roughHref={`/calibrations/${id}/read?look=rough`}
      />
      {hasCoded && (
        <p className="mt-3">
          A scanner at hand?{' '}
          <Link className="btn btn-quiet" href={`/calibrations/${id}/read?look=scan`} prefetch={false}>
            Put the sheet on the scanner
          </Link>{' '}
          <span className="quiet">Every spot is measured to a few thousandths of a mm, in seconds.</span>
        </p>
      )}
    </>
  );
}

/** What an address asks to see, as far as this sheet has it. */
function lookOf(
  record: CalibrationRecord,
  set: CutSet,
  { look }: StepProps['query'],
): 'discs' | 'scan' | 'list' | 'ask' | 'rough' | 'fine' {
  if (look === 'discs' && discsOf(record, set).length > 0) return look;
  if (look === 'scan' && codedOf(record, set).length > 0) return look;
  if (look === 'list') return 'list';
  const hasGrids = set.setNo === 1 && record.definition.roughs.length > 0;
  if (!hasGrids || look === 'fine') return 'fine';
  if (look !== undefined && look !== 'ask') return 'rough';
  const hasFine = record.readings.some((r) => r.cutSetId === set.id && r.method !== 'rough');
  return hasFine ? 'fine' : 'ask';
}

export function ReadPage(asked: StepProps) {
  const set = setToRead(asked.record);
  if (!set) return <PageHeading>Nothing cut since the last correction. Cut first.</PageHeading>;
  // The sheet that this set was cut on, which need not be the latest.
  const props = { ...asked, record: onSheet(asked.record, set.sheetNo) };
  return (
    <>
      <p className="quiet mb-0">{`Sheet ${props.record.code}, cut set ${set.setNo}`}</p>
      <Look {...props} set={set} />
    </>
  );
}

/** The look at a set that an address asks for. */
function Look({ set, ...props }: StepProps & { readonly set: CutSet }) {
  const { record, query } = props;
  if (isTurnedOver(record, set) && query.face !== 'front') return <BackOfDiscs {...props} set={set} />;
  switch (lookOf(record, set, query)) {
    case 'discs':
      return <Discs {...props} set={set} />;
    case 'scan':
      return <Scan {...props} set={set} next={nextAfterReading(record, set)} />;
    case 'list':
      return <ListOfReadings {...props} set={set} />;
    case 'ask':
      return <FirstLook record={record} hasCoded={codedOf(record, set).length > 0} />;
    case 'rough':
      return (
        <>
          <PageHeading className="station-title">The cut is far off: read the rough position</PageHeading>
          <Rough {...props} set={set} />
        </>
      );
    case 'fine':
      return <FineFigures {...props} set={set} />;
  }
}
