import Link from 'next/link';
import type { RollAnswer } from '@/compute/roll';
import type { SectionsWay } from '@/compute/roll-plan';
import type { SectionWork } from '@/contracts/rolls';
import { hoursWords } from '@/core/drift/section-plan';
import { judgeTyped, marksBetween, rowsLengthMm, type SectionRows } from '@/core/drift/section-rows';
import { formatFixed, formatLength, formatSize, type UnitSystem } from '@/core/units/length';
import { driftOf, rollProblemWords } from '@/server/services/roll-drift-view';
import {
  answerSections,
  sectionProblemWords,
  usualWork,
  type SectionsAnswer,
} from '@/server/services/roll-sections-view';
import { lengthWords, sectionsHeadline, typedWords } from '@/server/services/roll-section-words';
import { SectionTimeline } from '@/ui/roll/SectionTimeline';
import { SectionForm } from '@/ui/roll/SectionForm';
import type { RollProps } from './roll-props';
import { PageHeading } from '@/ui/components/PageHeading';

interface AnswerProps {
  readonly answer: RollAnswer;
  readonly work: SectionWork;
  readonly system: UnitSystem;
}

interface RowsProps {
  readonly rows: SectionRows;
  readonly longestMm: number;
  readonly work: SectionWork;
  readonly system: UnitSystem;
}

/** Rows, pieces, marks and the length to type. */
function Rows({ rows, longestMm, work, system }: RowsProps) {
  const typed = work.typedLengthMm;
  const runMm = rowsLengthMm(work, rows.rows);
  const betweenMarks = work.registration === 'both-ends' ? marksBetween(runMm, longestMm) : null;
  return (
    <>
      <table className="plain">
        <tbody>
          {(
            [
              ['pieces across', rows.copiesAcross],
              ['rows in all', rows.rows],
              ['rows in a section', rows.rowsPerSection],
              ['pieces in a section', rows.copiesPerSection],
              ['sections', rows.sections],
              ['pieces in the last one', rows.lastCopies],
            ] as const
          ).map(([name, count]) => (
            <tr key={name}>
              <th scope="row">{name}</th>
              <td className="figures">{count}</td>
            </tr>
          ))}
          {betweenMarks !== null && (
            <tr>
              <th scope="row">or in one, pairs of marks in between</th>
              <td className="figures">{betweenMarks}</td>
            </tr>
          )}
          <tr>
            <th scope="row">length to type</th>
            <td className="figures">
              <strong>{formatSize(rows.typedMm, system)}</strong>
            </td>
          </tr>
        </tbody>
      </table>
      <p className="quiet">
        {`The rows need ${formatSize(rows.neededMm, system)}; from ${formatSize(rows.oneMoreMm, system)} on one more row would get in.`}
      </p>
      {typed !== null && (
        <p className={judgeTyped(rows, typed) === 'right' ? '' : 'notice'}>{typedWords(rows, typed, system)}</p>
      )}
    </>
  );
}

const WAYS = [
  { id: 'even', words: 'longest sections that hold' },
  { id: 'best', words: 'cheapest sections that hold' },
  { id: 'unsplit', words: 'all in one' },
] as const;

/** "9 rows, 9 times; then 8": sections of the same length told together. */
function sectionsWords(sections: readonly number[]): string {
  const counts = new Map<number, number>();
  for (const rows of sections) counts.set(rows, (counts.get(rows) ?? 0) + 1);
  return [...counts].map(([rows, times]) => `${times} \u00d7 ${rows} rows`).join(', ');
}

interface WaysProps {
  readonly plan: NonNullable<RollAnswer['plan']>;
  readonly isDue: boolean;
  readonly system: UnitSystem;
}

function Ways({ plan, isDue, system }: WaysProps) {
  return (
    <>
      <h2>What each way costs</h2>
      <div className="table-responsive" role="region" aria-label="What each way costs" tabIndex={0}>
        <table className="plain" style={{ minWidth: '38rem' }}>
          <thead>
            <tr>
              <th>way</th>
              <th>sections</th>
              <th>set-up</th>
              <th>blank ends</th>
              <th>pieces lost</th>
              {isDue && <th>late</th>}
              <th>cost in all</th>
              <th>done after</th>
            </tr>
          </thead>
          <tbody>
            {WAYS.map(({ id, words }) => (
              <WayRow key={id} words={words} way={plan[id]} isDue={isDue} system={system} />
            ))}
          </tbody>
        </table>
      </div>
      <p className="quiet">
        Set-up and finishing at the hour&rsquo;s cost, ends left blank, and pieces that are to be expected out; what the
        work itself takes is the same every way. From where a section leaves what is allowed, every row after it is
        counted as lost; between marks all of the section.
      </p>
      {isDue && !plan.isDueWeighed && (
        <p className="notice">
          So many rows are not weighed by when they are done: lateness is told, but the cheapest sections were chosen
          without it.
        </p>
      )}
      {WAYS.map(({ id, words }) => (
        <figure key={id} className="mb-2">
          <SectionTimeline times={plan[id].times} label={`Printing, cutting and finishing: ${words}`} />
          <figcaption className="quiet">{words}</figcaption>
        </figure>
      ))}
    </>
  );
}

interface WayProps {
  readonly words: string;
  readonly way: SectionsWay;
  readonly isDue: boolean;
  readonly system: UnitSystem;
}

function WayRow({ words, way, isDue, system }: WayProps) {
  return (
    <tr>
      <th scope="row">{words}</th>
      <td>{sectionsWords(way.sections)}</td>
      <td className="figures">{formatFixed(way.cost.setUp, 2)}</td>
      <td className="figures">{`${formatLength(way.wasteMm, system)}, ${formatFixed(way.cost.waste, 2)}`}</td>
      <td className="figures">{`${formatFixed(way.spoilt, 1)}, ${formatFixed(way.cost.spoilt, 2)}`}</td>
      {isDue && <td className="figures">{way.cost.late === 0 ? 'in time' : formatFixed(way.cost.late, 2)}</td>}
      <td className="figures">
        <strong>{formatFixed(way.cost.total, 2)}</strong>
      </td>
      <td className="figures">{hoursWords(way.times.at(-1)?.finish.toHours ?? 0)}</td>
    </tr>
  );
}

function WhatIf({ answer, system }: AnswerProps) {
  const { whatIf, section, rows } = answer;
  if (!whatIf) return null;
  const lines = [
    { words: 'as it is', section, rows },
    { words: 'were only half allowed', ...whatIf.halfTolerance },
    { words: 'were the drift half', ...whatIf.halfDrift },
  ];
  return (
    <>
      <h2>What if</h2>
      <table className="plain">
        <thead>
          <tr>
            <th>what if</th>
            <th>longest section</th>
            <th>rows</th>
            <th>sections</th>
          </tr>
        </thead>
        <tbody>
          {lines.map((l) => (
            <tr key={l.words}>
              <th scope="row">{l.words}</th>
              <td className="figures">{lengthWords(l.section, system)}</td>
              <td className="figures">{l.rows?.rowsPerSection ?? 'none holds'}</td>
              <td className="figures">{l.rows?.sections ?? ''}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

function Answer(props: AnswerProps) {
  const { answer, work, system } = props;
  return (
    <>
      <p>
        {`Unsplit, at ${formatFixed(answer.unsplit.atMm / 1000, 1)} m it may be out by ${formatLength(answer.unsplit.errorMm.across, system)} across and ${formatLength(answer.unsplit.errorMm.along, system)} along if nothing is keyed in, 95 % sure.`}
      </p>
      {answer.section.isBeyondStrip && (
        <p className="notice">
          {`This is further than the strip that was read (${formatFixed(answer.stripMm / 1000, 1)} m): nothing was seen there. Read a longer strip, or keep to its length.`}
        </p>
      )}
      {answer.rows && <Rows rows={answer.rows} longestMm={answer.section.longestMm} work={work} system={system} />}
      <WhatIf {...props} />
    </>
  );
}

interface ConfirmProps {
  readonly record: RollProps['record'];
  readonly rows: SectionRows;
  readonly work: SectionWork;
}

/** Only a section that was cut and measured says whether sections hold. */
function Confirm({ record: { roll }, rows, work }: ConfirmProps) {
  const asked = new URLSearchParams({
    ...{ materialId: roll.materialId, widthMm: String(work.itemWidthMm), toleranceMm: String(roll.toleranceMm) },
    ...{ spacingMm: String(work.itemLengthMm + work.gapMm), stations: String(rows.rowsPerSection) },
  });
  return (
    <p>
      <Link className="btn btn-quiet" href={`/setups/${roll.setupId}/rolls?${asked.toString()}`} prefetch={false}>
        {`Confirm it: cut one section of ${rows.rowsPerSection} rows and measure it`}
      </Link>
    </p>
  );
}

/** What was found, what was refused, or what to do first. */
function Told({ answered, work, system }: { readonly answered: SectionsAnswer | null } & Omit<AnswerProps, 'answer'>) {
  if (!answered) return <p>Say what the run is, and work out the sections.</p>;
  if (!answered.ok) return <p className="notice">{sectionProblemWords(answered.error)}</p>;
  return <Answer answer={answered.value} work={work} system={system} />;
}

/** The whole width: how to make sure of it, and what each way costs. */
function Below({ record, answer, work, system }: AnswerProps & Pick<RollProps, 'record'>) {
  return (
    <>
      {answer.rows && <Confirm record={record} rows={answer.rows} work={work} />}
      {answer.plan ? (
        <Ways plan={answer.plan} isDue={work.dueHours !== null} system={system} />
      ) : (
        <p className="quiet">So many rows are not weighed by cost: ask for a shorter run.</p>
      )}
    </>
  );
}

/** How long a section may be, how many rows go in it, and what it costs. */
export async function SectionsPage({ record, system, currency, nav }: RollProps) {
  const told = driftOf(record);
  if (!told.ok)
    return (
      <>
        <PageHeading>Sections: not told yet</PageHeading>
        {nav}
        <p className="notice">{rollProblemWords(told.error)}</p>
      </>
    );
  const work = record.work ?? usualWork(record);
  const answered = record.work ? await answerSections(record, work) : null;
  const answer = answered?.ok ? answered.value : null;
  return (
    <>
      <PageHeading>{answer ? sectionsHeadline(answer, work, system) : 'How long may a section be?'}</PageHeading>
      {nav}
      <div className="two">
        <div>
          <SectionForm
            key={JSON.stringify(work)}
            rollId={record.roll.id}
            work={work}
            system={system}
            currency={currency}
          />
        </div>
        <div>
          <Told answered={answered} work={work} system={system} />
        </div>
      </div>
      {answer && <Below {...{ record, answer, work, system }} />}
    </>
  );
}
