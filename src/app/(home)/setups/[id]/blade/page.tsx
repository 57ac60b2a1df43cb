import Link from 'next/link';
import { notFound } from 'next/navigation';
import { z } from 'zod';
import { Stack } from '@/contracts/floor';
import { FORCE_UNIT_WORDS, TEST_CUT_WORDS } from '@/core/shop/test-cut';
import { database } from '@/server/services/database';
import { currentSession } from '@/server/services/session';
import { readTestCuts, type TestCutsView } from '@/server/services/test-cuts';
import { stampWords } from '@/ui/components/dates';
import { HomeShell } from '@/ui/components/HomeShell';
import { NEED_WORDS, nextForceWords } from '@/ui/floor/blade-words';
import { NewBlade } from '@/ui/floor/NewBlade';
import { TestCutForm, type TestCutStart } from '@/ui/floor/TestCutForm';
import { PageHeading } from '@/ui/components/PageHeading';

export const dynamic = 'force-dynamic';

interface Props {
  readonly params: Promise<{ id: string }>;
  readonly searchParams: Promise<{ material?: string; stack?: string; job?: string }>;
}

interface ViewProps {
  readonly view: TestCutsView;
  readonly stamp: (at: Date) => string;
}

const address = (view: TestCutsView, materialId: string, stack: string): string =>
  `/setups/${view.setupId}/blade?material=${materialId}${stack === '' ? '' : `&stack=${encodeURIComponent(stack)}`}`;

/** Which material, and what lies on or under it. */
function Which({ view }: { readonly view: TestCutsView }) {
  return (
    <form className="d-flex flex-wrap gap-3 align-items-end mb-3" action={`/setups/${view.setupId}/blade`}>
      <div>
        <label className="form-label" htmlFor="material">
          Material
        </label>
        <select id="material" name="material" className="form-select" defaultValue={view.materialId}>
          {view.materials.map((m) => (
            <option key={m.id} value={m.id}>
              {m.name}
            </option>
          ))}
        </select>
      </div>
      <div>
        <label className="form-label" htmlFor="stack">
          What lies on or under it
        </label>
        <input
          id="stack"
          name="stack"
          className="form-control"
          list="stacks"
          maxLength={60}
          placeholder="nothing"
          defaultValue={view.stack}
        />
        <datalist id="stacks">
          {view.stacks.map((s) => (
            <option key={s} value={s} />
          ))}
        </datalist>
      </div>
      <button type="submit" className="btn btn-quiet">
        Show
      </button>
    </form>
  );
}

function Log({ view, stamp }: ViewProps) {
  if (view.all.length === 0) return <p className="quiet">No test cut is written down for {view.cutterName} yet.</p>;
  return (
    <div className="table-responsive" role="region" aria-label="Test cuts" tabIndex={0}>
      <table className="plain">
        <thead>
          <tr>
            <th scope="col">when</th>
            <th scope="col">material</th>
            <th scope="col">force</th>
            <th scope="col">depth</th>
            <th scope="col">speed</th>
            <th scope="col">passes</th>
            <th scope="col">came out</th>
            <th scope="col">who</th>
          </tr>
        </thead>
        <tbody>
          {view.all.map((t) => (
            <tr key={t.id} className={t.isThisBlade ? undefined : 'quiet'}>
              <td className="text-nowrap">
                {stamp(t.at)}
                {!t.isThisBlade && <span className="d-block">a blade before</span>}
              </td>
              <td>
                <Link href={address(view, t.materialId, t.stack)} prefetch={false}>
                  {t.materialName}
                </Link>
                {t.stack && <span className="d-block">{t.stack}</span>}
              </td>
              <td className="figures text-nowrap">{t.force === null ? '' : `${t.force} ${t.forceUnit}`}</td>
              <td className="figures">{t.depth}</td>
              <td className="figures">{t.speed}</td>
              <td className="figures">{t.passes}</td>
              <td>{TEST_CUT_WORDS[t.outcome]}</td>
              <td>{t.personName}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** Where one came from to write a test cut down. */
function BackToJob({ job, stack }: { readonly job: string | undefined; readonly stack: string }) {
  const id = z.uuid().safeParse(job);
  if (!id.success) return null;
  const query = stack === '' ? '' : `?stack=${encodeURIComponent(stack)}`;
  return (
    <p>
      <Link className="btn btn-quiet" href={`/jobs/${id.data}${query}`} prefetch={false}>
        Back to the job
      </Link>
    </p>
  );
}

/** What stands in the form: the last figures, with the force that is to be tried next. */
function startOf({ last, next }: TestCutsView): TestCutStart {
  const { force, forceUnit, depth, speed, passes } = last ?? {
    ...{ force: null, depth: null, speed: null },
    ...{ forceUnit: 'gf' as const, passes: 1 },
  };
  return { force: next.kind === 'try' ? next.force : force, forceUnit, depth, speed, passes };
}

function bladeWords({ blade }: TestCutsView, stamp: (at: Date) => string): string {
  if (!blade) return 'Nobody wrote down yet when its blade was put in.';
  return `Its blade was put in ${stamp(blade.at)}${blade.note ? ` (${blade.note})` : ''}, ${blade.personName}.`;
}

/** Blade and force: what cuts this material clean, what to try next, and everything that was tried. */
export default async function BladePage({ params, searchParams }: Props) {
  const [{ id }, asked] = await Promise.all([params, searchParams]);
  const stack = Stack.catch('').parse(asked.stack ?? '');
  const [session, view] = await Promise.all([
    currentSession(),
    readTestCuts(database(), id, { materialId: asked.material, stack }),
  ]);
  if (!view) notFound();
  const stamp = (at: Date): string => stampWords(at, session.person.timeZone);
  const unit = FORCE_UNIT_WORDS[view.last?.forceUnit ?? 'gf'];
  const materialName = view.materials.find((m) => m.id === view.materialId)?.name ?? '';
  const what = `${materialName}${view.stack === '' ? '' : `, ${view.stack}`}`;
  return (
    <HomeShell here="Bench" people={session}>
      <PageHeading>
        {view.need ? `${what}: ${NEED_WORDS[view.need]}` : `${what} cuts clean in ${view.cutterName}`}
      </PageHeading>
      <p>
        {bladeWords(view, stamp)} <strong>{nextForceWords(view.next, unit, view.last?.force ?? null)}</strong>
      </p>
      <BackToJob job={asked.job} stack={view.stack} />
      <Which view={view} />
      <div className="two">
        <TestCutForm
          key={`${view.materialId} ${view.stack} ${view.all.length}`}
          setupId={id}
          materialId={view.materialId}
          stack={view.stack}
          start={startOf(view)}
        />
        <NewBlade setupId={id} />
      </div>
      <h2 className="mt-3">Everything that was tried in {view.cutterName}</h2>
      <Log view={view} stamp={stamp} />
    </HomeShell>
  );
}
