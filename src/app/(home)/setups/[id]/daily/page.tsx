import Link from 'next/link';
import { notFound } from 'next/navigation';
import { FALSE_SIGNAL_EVERY } from '@/core/charts/control-chart';
import { DAILY_METHOD_WORDS, DAILY_METHODS, type DailyMethod } from '@/core/trust/daily-method';
import { SCHOOL_WORDS } from '@/core/trust/policy';
import { formatLength, type UnitSystem } from '@/core/units/length';
import { readDaily, type DailyView } from '@/server/services/daily-view';
import { database } from '@/server/services/database';
import { currentSession } from '@/server/services/session';
import { signalWords } from '@/server/services/trust-words';
import { stampWords } from '@/ui/components/dates';
import { HomeShell } from '@/ui/components/HomeShell';
import { ControlChartPicture } from '@/ui/trust/ControlChartPicture';
import { DailyForm } from '@/ui/trust/DailyForm';
import { DiscCheck } from '@/ui/trust/DiscCheck';
import { PhotoCheck } from '@/ui/trust/PhotoCheck';
import { PageHeading } from '@/ui/components/PageHeading';

export const dynamic = 'force-dynamic';

interface Props {
  readonly params: Promise<{ id: string }>;
  readonly searchParams: Promise<{ material?: string; by?: string }>;
}

const FORMS = { hand: DailyForm, photo: PhotoCheck, discs: DiscCheck } as const;

interface ChoiceProps {
  readonly view: DailyView;
  readonly method: DailyMethod;
}

/** Ways to measure, the quickest to begin with first. */
function Methods({ view, method }: ChoiceProps) {
  return (
    <nav aria-label="How it is measured" className="d-flex flex-wrap gap-2 mb-3">
      {DAILY_METHODS.map((m) => (
        <Link
          key={m}
          href={`/setups/${view.setupId}/daily?material=${view.materialId}&by=${m}`}
          prefetch={false}
          scroll={false}
          className={`btn ${m === method ? 'btn-primary' : 'btn-quiet'}`}
          aria-current={m === method ? 'page' : undefined}
        >
          {DAILY_METHOD_WORDS[m]}
        </Link>
      ))}
    </nav>
  );
}

function Materials({ view, method }: ChoiceProps) {
  return (
    <nav aria-label="Material" className="d-flex flex-wrap gap-2 mb-3">
      {view.materials.map((m) => (
        <Link
          key={m.id}
          href={`/setups/${view.setupId}/daily?material=${m.id}&by=${method}`}
          prefetch={false}
          className={`btn ${m.id === view.materialId ? 'btn-primary' : 'btn-quiet'}`}
          aria-current={m.id === view.materialId ? 'page' : undefined}
        >
          {m.name}
        </Link>
      ))}
    </nav>
  );
}

interface ChecksProps {
  readonly view: DailyView;
  readonly system: UnitSystem;
  readonly stamp: (at: Date) => string;
}

/** The checks themselves, newest first. */
function Checks({ view, system, stamp }: ChecksProps) {
  if (view.checks.length === 0) return <p>No piece was measured since the machine was last set.</p>;
  return (
    <div className="table-responsive">
      <table className="plain">
        <thead>
          <tr>
            <th>when, how, by whom</th>
            <th>across</th>
            <th>along</th>
            <th>uncertainty</th>
          </tr>
        </thead>
        <tbody>
          {[...view.checks].reverse().map((p) => (
            <tr key={p.id}>
              <td>
                {stamp(p.at)} <span className="quiet d-inline-block">{`${DAILY_METHOD_WORDS[p.method]}, ${p.by}`}</span>
              </td>
              <td className="figures text-nowrap">{formatLength(p.acrossMm, system)}</td>
              <td className="figures text-nowrap">{formatLength(p.alongMm, system)}</td>
              <td className="figures text-nowrap">{formatLength(p.standardUncertaintyMm, system)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function headline({ setupName, chart }: DailyView): string {
  if (chart.signal) return `${setupName}: the daily checks left what is usual`;
  if (chart.across.usual === null) return `${setupName}: is the cut still where it should be?`;
  return `${setupName}: nothing unusual in ${chart.points.length} checks`;
}

/** The daily check: a finished piece measured by hand, on a photo, or by two discs beside it, and what all of them so far say. */
export default async function DailyPage({ params, searchParams }: Props) {
  const [{ id }, { material, by }] = await Promise.all([params, searchParams]);
  const [session, view] = await Promise.all([currentSession(), readDaily(database(), id, material)]);
  if (!view) notFound();
  const { person } = session;
  const system = person.unitSystem;
  const stamp = (at: Date): string => stampWords(at, person.timeZone);
  const times = view.chart.points.map((p) => p.at.getTime());
  const { school } = view;
  const method = DAILY_METHODS.find((m) => m === by) ?? 'hand';
  const Form = FORMS[method];
  return (
    <HomeShell here="Bench" people={session}>
      <PageHeading>{headline(view)}</PageHeading>
      <Materials view={view} method={method} />
      <div className="two">
        <div>
          <Methods view={view} method={method} />
          <Form
            key={view.materialId}
            setupId={id}
            materialId={view.materialId}
            toleranceMm={view.toleranceMm}
            system={system}
            isSimulated={view.isSimulated}
          />
        </div>
        <div>
          {view.chart.signal && (
            <p className="notice">
              {signalWords(view.chart.signal, stamp(view.chart.signal.since), system)}{' '}
              {!view.chart.signal.isFirst && (
                <Link href={`/setups/${id}`} prefetch={false}>
                  Quick check, 15 minutes
                </Link>
              )}
            </p>
          )}
          <ControlChartPicture title="Across" chart={view.chart.across} timesMs={times} system={system} />
          <ControlChartPicture title="Along" chart={view.chart.along} timesMs={times} system={system} />
          <p className="quiet">
            {`${SCHOOL_WORDS[school]}. A machine that stays as it is signals falsely about once in ${FALSE_SIGNAL_EVERY[school]} checks in each direction. ${view.chart.across.isProvisional ? 'Limits are provisional until fifty checks: they widen to what so few can tell. ' : ''}The chart begins anew whenever the machine is set.`}{' '}
            <Link href={`/setups/${id}/policy`} prefetch={false}>
              Another chart
            </Link>
          </p>
          <Checks view={view} system={system} stamp={stamp} />
        </div>
      </div>
    </HomeShell>
  );
}
