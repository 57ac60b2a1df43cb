import Link from 'next/link';
import { RECORD_KINDS, type HistoryQueryInput } from '@/contracts/history';
import { RECORD_WORDS } from './record-words';

interface Named {
  readonly id: string;
  readonly name: string;
}

interface Props {
  readonly query: HistoryQueryInput;
  readonly setups: readonly Named[];
  readonly materials: readonly Named[];
}

interface ChoiceProps {
  readonly label: string;
  readonly name: string;
  readonly all: readonly (readonly [value: string, words: string])[];
  readonly chosen: string | undefined;
}

function Choice({ label, name, all, chosen }: ChoiceProps) {
  return (
    <div className="narrowing">
      <label className="form-label" htmlFor={`by-${name}`}>
        {label}
      </label>
      <select id={`by-${name}`} name={name} className="form-select" defaultValue={chosen ?? ''}>
        <option value="">all</option>
        {all.map(([value, words]) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
      </select>
    </div>
  );
}

const named = (all: readonly Named[]): ChoiceProps['all'] => all.map((n) => [n.id, n.name] as const);

/** What of the history is shown: a plain form, so that every view has an address of its own. */
export function HistoryFilter({ query, setups, materials }: Props) {
  const isNarrowed = Object.values(query).some(Boolean);
  return (
    <form action="/history" className="d-flex flex-wrap gap-3 align-items-end mb-3" role="search">
      <Choice label="Printer + cutter" name="setup" all={named(setups)} chosen={query.setup} />
      <Choice label="Material" name="material" all={named(materials)} chosen={query.material} />
      <Choice
        label="What"
        name="kind"
        all={RECORD_KINDS.map((k) => [k, RECORD_WORDS[k]] as const)}
        chosen={query.kind}
      />
      <div className="narrowing">
        <label className="form-label" htmlFor="by-find">
          With the words
        </label>
        <input id="by-find" name="find" className="form-control" maxLength={100} defaultValue={query.find ?? ''} />
      </div>
      <div className="d-flex gap-3">
        {(['from', 'to'] as const).map((end) => (
          <div key={end} className="narrowing">
            <label className="form-label" htmlFor={`by-${end}`}>
              {end === 'from' ? 'From' : 'To'}
            </label>
            <input id={`by-${end}`} name={end} type="date" className="form-control" defaultValue={query[end] ?? ''} />
          </div>
        ))}
      </div>
      <button type="submit" className="btn btn-primary">
        Show
      </button>
      {isNarrowed && (
        <Link className="btn btn-quiet" href="/history" prefetch={false}>
          Show all
        </Link>
      )}
    </form>
  );
}
