import Link from 'next/link';
import { database } from '@/server/services/database';
import { driftOf, rollProblemWords } from '@/server/services/roll-drift-view';
import { keyView, type KeyView } from '@/server/services/roll-key-view';
import { SetIt } from '@/ui/roll/RollButtons';
import type { RollProps } from './roll-props';
import { PageHeading } from '@/ui/components/PageHeading';

function OwnSettings({ view }: { readonly view: KeyView }) {
  if (view.settings.length === 0)
    return (
      <p>
        This printer + cutter has no setting for the length along the roll. If yours has one, describe it in the shop;
        else take a corrected cut file, or shorter sections.
      </p>
    );
  return view.settings.map((s) => (
    <div key={s.id}>
      <p className="lead">
        {`Set ${s.name} from ${s.before} to `}
        <strong>{s.after}</strong>
        {s.toType !== null && ` (it is added to: type ${s.toType})`}
        <span className="quiet d-block">{`Its steps leave ${s.left}.`}</span>
      </p>
      {s.now !== null && <p className="notice">{`It stands at ${s.now} now: this strip was cut before that.`}</p>}
      {s.now !== s.after && <SetIt settingId={s.id} name={s.name} value={s.afterValue} words={s.after} />}
    </div>
  ));
}

/** Feed compensation in the machine's own way of asking; the rest in the cut file. */
export async function KeyPage({ record, system, nav }: RollProps) {
  const told = driftOf(record);
  if (!told.ok)
    return (
      <>
        <PageHeading>Key in: not told yet</PageHeading>
        {nav}
        <p className="notice">{rollProblemWords(told.error)}</p>
      </>
    );
  const view = await keyView(database(), record, told.value, system);
  return (
    <>
      <PageHeading>
        {view.isNone ? 'No feed error is seen: key in nothing' : `The cut runs ${view.growth}: key this in`}
      </PageHeading>
      {nav}
      {view.isNone ? (
        <p>The interval of the feed holds nought. A longer strip would tell a smaller one.</p>
      ) : (
        <>
          <p className="caution">
            Write the old value down before you change it. First run with a new setting: tool up, hand at stop.
          </p>
          <OwnSettings view={view} />
          {view.ofUnknownSense.length > 0 && (
            <p className="notice">
              {`${view.ofUnknownSense.join(', ')}: which way plus goes is not known yet. Do the which-way test first.`}
            </p>
          )}
          <h2>As other machines ask for it</h2>
          <table className="plain">
            <thead>
              <tr>
                <th>asked for</th>
                <th>type</th>
              </tr>
            </thead>
            <tbody>
              {view.ways.map((w) => (
                <tr key={w.way}>
                  <td>{w.way}</td>
                  <td className="figures">{w.type}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="quiet">
            Percent, per mille and mm are what the cutter&rsquo;s feed is to be changed by, plus is more. Then print and
            cut another strip: only that says whether it was right.
          </p>
        </>
      )}
      <h2>What no setting takes out</h2>
      <p>
        Walk, bow and turn can be moved in the cut file itself; slip cannot.{' '}
        <Link href={`/setups/${record.roll.setupId}/cut-file?roll=${record.roll.id}`} prefetch={false}>
          Correct a cut file by this drift
        </Link>
      </p>
      <Link className="btn btn-primary" href={`/setups/${record.roll.setupId}/rolls`} prefetch={false}>
        It is keyed in: another strip
      </Link>
    </>
  );
}
