import { SETTING_KITS } from '@/core/shop/setting-kits';
import { ChoiceCards } from './ChoiceCards';
import type { WizardView } from './wizard-view';

export interface LastAnswers {
  readonly kitId: string;
  readonly name: string;
  readonly shared: Shared;
  readonly isSimulated: boolean;
}

interface LastProps {
  readonly view: WizardView;
  readonly hasProgram: boolean;
  readonly last: LastAnswers;
  readonly onLast: (last: LastAnswers) => void;
  readonly isBusy: boolean;
  readonly problem: string | null;
  readonly onMake: () => void;
}

/** What can be set, what it is called, and what it shares with machines that are there already. */
export function LastQuestions({ view, hasProgram, last, onLast, isBusy, problem, onMake }: LastProps) {
  return (
    <>
      <ChoiceCards
        legend="What can be set, and where?"
        name="kit"
        value={last.kitId}
        onChange={(kitId) => {
          onLast({ ...last, kitId });
        }}
        choices={SETTING_KITS.filter((kit) => !kit.isInProgram || hasProgram).map((kit) => ({
          value: kit.id,
          title: kit.title,
          words: kit.words,
        }))}
      />
      <label htmlFor="setup-name" className="form-label">
        What do you call this printer + cutter?
      </label>
      <input
        id="setup-name"
        className="form-control mb-3"
        style={{ maxWidth: '20rem' }}
        value={last.name}
        maxLength={60}
        onChange={(e) => {
          onLast({ ...last, name: e.target.value });
        }}
      />
      <SharedMachines
        view={view}
        shared={last.shared}
        onShare={(shared) => {
          onLast({ ...last, shared });
        }}
      />
      <label className="choice mb-3">
        <input
          type="checkbox"
          checked={last.isSimulated}
          onChange={(e) => {
            onLast({ ...last, isSimulated: e.target.checked });
          }}
        />
        <span>
          Try it with stand-ins first
          <span className="quiet d-block">
            No machine is needed: printer and cutter are simulated, out by a hidden amount.
          </span>
        </span>
      </label>
      <button type="button" className="btn btn-primary" disabled={isBusy || last.name.trim() === ''} onClick={onMake}>
        Put it on the bench
      </button>
      <p role="alert" className="mt-2">
        {problem}
      </p>
    </>
  );
}

type Shared = Readonly<Record<'printerId' | 'cutterId' | 'programId', string>>;

interface SharedProps {
  readonly view: WizardView;
  readonly shared: Shared;
  readonly onShare: (shared: Shared) => void;
}

/** Machines that stand in the shop already: one thing described once, shared by all that use it. */
function SharedMachines({ view, shared, onShare }: SharedProps) {
  const rows = [
    ['printerId', 'Printer', view.printers],
    ['cutterId', 'Cutter', view.cutters],
    ['programId', 'Program', view.programs],
  ] as const;
  if (rows.every(([, , known]) => known.length === 0)) return null;
  return (
    <div className="d-flex flex-wrap gap-3 mb-3">
      {rows
        .filter(([, , known]) => known.length > 0)
        .map(([key, label, known]) => (
          <label key={key} className="form-label">
            {label}
            <select
              className="form-select"
              value={shared[key]}
              onChange={(e) => {
                onShare({ ...shared, [key]: e.target.value });
              }}
            >
              <option value="">another one</option>
              {known.map((m) => (
                <option key={m.id} value={m.id}>
                  {m.name}
                </option>
              ))}
            </select>
          </label>
        ))}
    </div>
  );
}
