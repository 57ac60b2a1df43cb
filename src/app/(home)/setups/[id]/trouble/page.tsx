import Link from 'next/link';
import { notFound } from 'next/navigation';
import {
  evidenceFor,
  nextStepFor,
  SYMPTOMS,
  symptomOf,
  type Evidence,
  type NextStep,
  type Symptom,
} from '@/core/trouble/symptoms';
import { formatLength, type UnitSystem } from '@/core/units/length';
import type { Part } from '@/core/verdict/parts';
import { database } from '@/server/services/database';
import { PART_NAMES } from '@/core/verdict/part-words';
import { currentSession } from '@/server/services/session';
import { readTrouble, type TroubleView } from '@/server/services/trouble';
import { HomeShell } from '@/ui/components/HomeShell';
import { stampWords } from '@/ui/components/dates';
import { SymptomPicture } from '@/ui/trouble/SymptomPicture';
import { PageHeading } from '@/ui/components/PageHeading';

export const dynamic = 'force-dynamic';

interface Props {
  readonly params: Promise<{ id: string }>;
  readonly searchParams: Promise<{ seen?: string }>;
}

/** All that can be seen, as pictures to be compared with the sheet in hand. */
function Choices({ setupId, chosen }: { readonly setupId: string; readonly chosen: string | undefined }) {
  return (
    <ul className="cards list-unstyled">
      {SYMPTOMS.map((s) => (
        <li key={s.id}>
          <Link
            href={`/setups/${setupId}/trouble?seen=${s.id}`}
            prefetch={false}
            aria-current={s.id === chosen ? 'true' : undefined}
            className={`choice symptom ${s.id === chosen ? 'chosen' : ''}`}
          >
            <SymptomPicture symptom={s} />
            <span>
              <strong>{s.title}</strong>
              <span className="quiet d-block">{s.words}</span>
            </span>
          </Link>
        </li>
      ))}
    </ul>
  );
}

function evidenceWords(symptom: Symptom, evidence: Evidence, system: UnitSystem): string {
  const isLoads = symptom.id === 'each-time';
  switch (evidence.kind) {
    case 'agrees':
      return isLoads
        ? 'It agrees: its loads differ enough to put work out by themselves. No calibration removes that.'
        : `It agrees: ${partName(evidence.part)} alone was ${formatLength(evidence.effectMm, system)} at the worst corner.`;
    case 'contradicts':
      return isLoads
        ? 'It speaks against it: its loads agreed well enough. Something has changed since, or this is another fault.'
        : `It speaks against it: this could be at most ${formatLength(evidence.atMostMm, system)} there. Something has changed since, or the sheet in hand shows another fault.`;
    case 'not-measured':
      return isLoads ? 'One load is all that was measured: it cannot tell.' : 'It says nothing of this.';
  }
}

const partName = (part: Part): string => PART_NAMES[part];

const NEXT: Readonly<Record<NextStep, { readonly words: string; readonly why: string } | null>> = {
  'quick-check': {
    words: 'Make a quick check',
    why: 'Five spots, fifteen minutes: it tells the shift, and whether it is one.',
  },
  'full-check': { words: 'Make a full check', why: 'Nine spots tell scale, rotation and squareness sharply.' },
  'another-load': {
    words: 'Check with two loads or more',
    why: 'On the map of a check, "Cut another load first": what changes each time is then told from what does not.',
  },
  'mark-test': {
    words: 'Find out what it uses its marks for',
    why: 'A machine that takes no turn from its marks follows how the sheet was laid in.',
  },
  look: null,
};

function Found({
  symptom,
  view,
  setupId,
  system,
  timeZone,
}: {
  readonly symptom: Symptom;
  readonly view: TroubleView;
  readonly setupId: string;
  readonly system: UnitSystem;
  readonly timeZone: string;
}) {
  const next = NEXT[nextStepFor(symptom, view.facts)];
  return (
    <section aria-label={symptom.title}>
      <h2>{symptom.title}</h2>
      <h3 className="h6">Look first, one thing at a time</h3>
      <ol className="steps">
        {symptom.lookFirst.map((look) => (
          <li key={look}>{look}</li>
        ))}
      </ol>
      {view.sheet && (
        <p>
          {`The latest sheet with today\u2019s settings, `}
          <Link href={`/calibrations/${view.sheet.calibrationId}/map`} prefetch={false}>
            {view.sheet.code}
          </Link>
          {` of ${stampWords(view.sheet.at, timeZone)}. ${evidenceWords(symptom, evidenceFor(symptom, view.facts), system)}`}
        </p>
      )}
      {!view.sheet && <p>Nothing was measured with today&rsquo;s settings yet.</p>}
      {next && (
        <p>
          <Link className="btn btn-primary" href={`/setups/${setupId}`} prefetch={false}>
            {next.words}
          </Link>
          <span className="quiet d-block mt-1">{next.why}</span>
        </p>
      )}
    </section>
  );
}

export default async function TroublePage({ params, searchParams }: Props) {
  const [{ id }, { seen }] = await Promise.all([params, searchParams]);
  const [session, view] = await Promise.all([currentSession(), readTrouble(database(), id)]);
  if (!view) notFound();
  const symptom = seen === undefined ? undefined : symptomOf(seen);
  return (
    <HomeShell here="Bench" people={session}>
      <PageHeading>{`${view.name}: what does the cut sheet look like?`}</PageHeading>
      {symptom && (
        <Found
          symptom={symptom}
          view={view}
          setupId={id}
          system={session.person.unitSystem}
          timeZone={session.person.timeZone}
        />
      )}
      <Choices setupId={id} chosen={symptom?.id} />
    </HomeShell>
  );
}
