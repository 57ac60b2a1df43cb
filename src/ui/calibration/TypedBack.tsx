'use client';

import { useId } from 'react';
import { checkTyped } from '@/core/setting/check-typed';
import type { SettingChange } from '@/core/setting/plan-settings';
import { lineOf, type Ladder, type OwnTest } from '@/core/reading/ladder';

export interface ChangeView {
  /** The plan itself: what is typed back is compared with it. */
  readonly plan: SettingChange;
  readonly unit: string;
  readonly before: string;
  readonly after: string;
  readonly toType: string;
  readonly moveWords: string;
  /** The machine's row that a wizard's line is picked from, where it is described. */
  readonly row: Ladder | null;
  /** Where the machine cuts those lines; null while that is not described. */
  readonly testSheet: OwnTest['sheet'] | null;
}

interface Props {
  readonly changes: readonly ChangeView[];
  readonly typed: Readonly<Record<string, string>>;
  readonly onTyped: (settingId: string, text: string) => void;
}

/** A number as a display shows it: decimal point or comma, minus of any kind. Null when it is none. */
export function readDisplay(text: string): number | null {
  const plain = text.trim().replace(',', '.').replace('\u2212', '-');
  return /^[+-]?(\d+\.?\d*|\.\d+)$/.test(plain) ? Number(plain) : null;
}

/** What was typed as the setting's own number: a line by its label as steps from the line without shift. Null when it is none. */
export function readTyped({ row }: Pick<ChangeView, 'row'>, text: string): number | null {
  if (row === null) return readDisplay(text);
  const line = lineOf(row, text);
  return line === null ? null : line - row.middle;
}

/** What was typed back as numbers, by setting; what is not a number is left out. */
export function typedNumbers(
  changes: readonly ChangeView[],
  typed: Readonly<Record<string, string>>,
): Record<string, number> {
  return Object.fromEntries(
    changes.flatMap((c) => {
      const value = readTyped(c, typed[c.plan.setting.id] ?? '');
      return value === null ? [] : [[c.plan.setting.id, value]];
    }),
  );
}

/** What is odd about the line that was picked in a wizard, which shows no value. */
function pickedWarning({ plan, toType }: ChangeView, text: string, value: number | null): string | null {
  if (value === null) return `"${text}" is no line of ${plan.setting.displayName}. Type its label, such as ${toType}.`;
  const { kind } = checkTyped(plan, value);
  if (kind === 'as-planned') return null;
  if (kind === 'out-of-range') return `${plan.setting.displayName} has no such line.`;
  if (kind === 'not-on-step') return `${plan.setting.displayName} takes whole lines only.`;
  return `Line ${toType} was meant. If another was picked, it will be kept as picked.`;
}

/** What is odd about a value typed back, in words; null when it is as planned. */
export function typedWarning(c: ChangeView, text: string): string | null {
  if (text.trim() === '') return null;
  const value = readTyped(c, text);
  return c.plan.setting.kind === 'wizard' ? pickedWarning(c, text, value) : shownWarning(c, text, value);
}

function shownWarning(c: ChangeView, text: string, value: number | null): string | null {
  const { displayName: name, minValue, maxValue, step } = c.plan.setting;
  if (value === null) return `"${text}" is not a number. Type what ${name} shows, such as ${c.toType}.`;
  switch (checkTyped(c.plan, value).kind) {
    case 'as-planned':
      return null;
    case 'change-for-value':
      return `${text} looks like the change. ${name} wants the new value: ${c.toType}.`;
    case 'value-for-change':
      return `${text} looks like the whole value. ${name} adds what is typed: type ${c.toType}.`;
    case 'other-sign':
      return `The sign is the other way round: ${c.toType} was meant.`;
    case 'out-of-range':
      return `${name} goes from ${minValue} to ${maxValue}.`;
    case 'not-on-step':
      return `${name} moves in steps of ${step}.`;
    case 'unchanged':
      return `${name} still shows its old value. Set it to ${c.toType}.`;
    case 'another-value':
      return `Planned was ${c.toType}. What you typed will be kept as what the machine is set to.`;
  }
}

const TEST_SHEETS: Readonly<Record<OwnTest['sheet'], string>> = {
  own: 'It prints and cuts a sheet of its own first.',
  'check-sheet': 'Load a check sheet for it: it cuts its lines there.',
};

/** Where and when a setting can be reached, for those that cannot be typed at any time. */
export function whereWords({ plan: { setting }, testSheet }: ChangeView): string | null {
  if (setting.kind === 'wizard') {
    const first = testSheet === null ? '' : `${TEST_SHEETS[testSheet]} `;
    return `${first}Pick this line even if another looks better there. Its value stays hidden: it can be neither read nor put back.`;
  }
  if (setting.kind === 'after_test_print') {
    const press = setting.pressThis ? ` press ${setting.pressThis}` : ' type it there';
    const not = setting.notThat ? `; do not press ${setting.notThat}` : '';
    return `Only right after the machine\u2019s own test print:${press}${not}.`;
  }
  return setting.isInProgram ? 'In the program: lost on a new install or another computer.' : null;
}

/** One row a setting: old value to write down, new value, which way the cut moves, and the value typed back. */
export function TypedBack({ changes, typed, onTyped }: Props) {
  const id = useId();
  return (
    <ol className="changes">
      {changes.map((c) => {
        const text = typed[c.plan.setting.id] ?? '';
        const warning = typedWarning(c, text);
        return (
          <li key={c.plan.setting.id}>
            <p className="set-words">
              {c.plan.setting.kind === 'wizard' ? (
                <>
                  In the wizard of <strong>{c.plan.setting.displayName}</strong> pick line{' '}
                  <strong className="figures">{c.toType}</strong>
                </>
              ) : (
                <>
                  Set <strong>{c.plan.setting.displayName}</strong> from <span className="figures">{c.before}</span> to{' '}
                  <strong className="figures">{c.after}</strong>
                  {c.plan.setting.combine === 'adds' && <span>{` (it adds: type ${c.toType})`}</span>}
                </>
              )}
            </p>
            {whereWords(c) && <p className="mb-1">{whereWords(c)}</p>}
            <p className="quiet mb-1">{`Then ${c.moveWords}.${c.plan.isAtLimit ? ' This is as far as it goes.' : ''}`}</p>
            <label htmlFor={`${id}-${c.plan.setting.id}`} className="form-label">
              {c.plan.setting.kind === 'wizard'
                ? `Line picked in ${c.plan.setting.displayName}`
                : `${c.plan.setting.displayName} shows now`}
            </label>
            <span className="d-flex align-items-center gap-2">
              <input
                id={`${id}-${c.plan.setting.id}`}
                className={`form-control figures ${warning ? 'is-invalid' : ''}`}
                style={{ maxWidth: '8rem' }}
                inputMode={c.row === null ? 'decimal' : 'text'}
                autoComplete="off"
                value={text}
                aria-describedby={`${id}-${c.plan.setting.id}-help`}
                onChange={(e) => {
                  onTyped(c.plan.setting.id, e.target.value);
                }}
              />
              {c.plan.setting.kind === 'wizard' ? '' : c.unit}
            </span>
            <span id={`${id}-${c.plan.setting.id}-help`} className="invalid-feedback d-block">
              {warning}
            </span>
          </li>
        );
      })}
    </ol>
  );
}
