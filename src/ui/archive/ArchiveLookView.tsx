import type { ArchiveLook, GroupChange, SettingChange } from '@/contracts/archive';

const count = (n: number): string => n.toLocaleString('en-GB');

const isChanged = (g: GroupChange): boolean => g.onlyHere + g.onlyInArchive + g.different > 0;

function Groups({ groups }: { readonly groups: readonly GroupChange[] }) {
  return (
    <div className="table-responsive" tabIndex={0} role="region" aria-label="What would change">
      <table className="plain">
        <thead>
          <tr>
            <th scope="col">Records of</th>
            <th scope="col">here now</th>
            <th scope="col">in the archive</th>
            <th scope="col">go</th>
            <th scope="col">come</th>
            <th scope="col">change</th>
          </tr>
        </thead>
        <tbody>
          {groups.filter(isChanged).map((g) => (
            <tr key={g.group}>
              <th scope="row">{g.group}</th>
              {[g.here, g.inArchive, g.onlyHere, g.onlyInArchive, g.different].map((n, i) => (
                <td key={i} className="figures">
                  {i > 1 && n === 0 ? '–' : count(n)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

const value = (v: number | null, unit: string): string => (v === null ? 'nothing' : `${String(v)} ${unit}`);

/** What a person has to see to at the machines: a record that goes back does not turn a knob. */
function MachineValues({
  settings,
  isDone,
}: {
  readonly settings: readonly SettingChange[];
  readonly isDone: boolean;
}) {
  if (settings.length === 0) return <p>Every setting of every machine has the same value here and in the archive.</p>;
  return (
    <>
      <p className="caution">
        The machines do not go back with the record. {isDone ? 'Before' : 'Afterwards, before'} the next job, read these
        off at the machine and key in what is wanted. Follow the machine&rsquo;s manual, and keep hands clear of a head
        that moves.
      </p>
      <ul>
        {settings.map((s) => (
          <li key={`${s.owner} ${s.setting}`}>
            {s.owner}, {s.setting}: keyed in last <span className="figures">{value(s.here, s.unit)}</span>, the archive
            says <span className="figures">{value(s.inArchive, s.unit)}</span>
          </li>
        ))}
      </ul>
    </>
  );
}

interface Props {
  readonly look: ArchiveLook;
  readonly isDone: boolean;
  readonly onPutIn: () => void;
  readonly onLeave: () => void;
}

function Unchanged({ groups }: { readonly groups: readonly GroupChange[] }) {
  const names = groups.filter((g) => !isChanged(g)).map((g) => g.group.toLowerCase());
  return names.length > 0 ? <p className="quiet">The same here and in the archive: {names.join('; ')}.</p> : null;
}

const sum = (groups: readonly GroupChange[], of: (g: GroupChange) => number): number =>
  groups.reduce((total, g) => total + of(g), 0);

function Summary({ look }: { readonly look: ArchiveLook }) {
  const lost = sum(look.groups, (g) => g.onlyHere);
  if (look.replaces === null)
    return <p>No shop here is this one: it comes beside those that are here, and nothing of theirs changes.</p>;
  if (!look.groups.some(isChanged)) return <p>Everything in it stands here already, to the letter.</p>;
  return (
    <p>
      It takes the place of <strong>{look.replaces}</strong>.{' '}
      {lost > 0
        ? `${lost === 1 ? '1 record that is' : `${count(lost)} records that are`} here and not in the archive would be put aside with the rest, to be put back until the next restore.`
        : 'Nothing that is here is missing in it.'}
    </p>
  );
}

/** What an archive would change, and the two ways on. */
export function ArchiveLookView({ look, isDone, onPutIn, onLeave }: Props) {
  return (
    <section aria-label="Archive" tabIndex={-1}>
      <h3 className="h6">
        {look.shopName}, of {look.madeAt.slice(0, 16).replace('T', ' ')} UTC
      </h3>
      {isDone ? (
        <p role="status">It is in its place. What was here before is kept until the next restore.</p>
      ) : (
        <Summary look={look} />
      )}
      {!isDone && look.groups.some(isChanged) && <Groups groups={look.groups} />}
      {!isDone && look.groups.some(isChanged) && <Unchanged groups={look.groups} />}
      {look.replaces !== null && <MachineValues settings={look.settings} isDone={isDone} />}
      {!isDone && (
        <>
          <p className="caution">
            Let nobody cut, read or key in while it takes its place: who is in the middle of something does that step
            again.
          </p>
          <p className="d-flex flex-wrap gap-2">
            <button type="button" className="btn btn-primary" onClick={onPutIn}>
              {look.replaces === null ? 'Put it beside the others' : `Put it in the place of ${look.replaces}`}
            </button>
            <button type="button" className="btn btn-quiet" onClick={onLeave}>
              Leave everything as it is
            </button>
          </p>
        </>
      )}
      {isDone && (
        <button type="button" className="btn btn-quiet" onClick={onLeave}>
          Done
        </button>
      )}
    </section>
  );
}
