'use client';

import { formatLength, formatLengthNumber, type UnitSystem } from '@/core/units/length';
import type { DrawnGroup, GroupBy } from '@/workers/cut-file.client';
import { ROLE_WORDS, ROLES, type Role } from './cut-file-move';

interface Props {
  readonly groups: readonly DrawnGroup[];
  readonly by: GroupBy;
  readonly hasLayers: boolean;
  readonly roles: Readonly<Record<string, Role>>;
  readonly system: UnitSystem;
  readonly onBy: (by: GroupBy) => void;
  readonly onRole: (name: string, role: Role) => void;
}

const isColour = (name: string): boolean => name.startsWith('#');

function sizeWords({ box }: DrawnGroup, system: UnitSystem): string {
  if (!box) return 'inside blocks';
  return `${formatLengthNumber(box.right - box.left, system)} \u00d7 ${formatLength(box.top - box.bottom, system)}`;
}

/** What each colour or layer of the drawing is: art, to cut, marks. */
export function GroupRoles({ groups, by, hasLayers, roles, system, onBy, onRole }: Props) {
  const own = groups.filter((g) => g.by === by);
  return (
    <fieldset>
      <legend className="h2">Which lines are to be cut?</legend>
      {hasLayers && (
        <p className="d-flex gap-2">
          {(['colour', 'layer'] as const).map((way) => (
            <button
              key={way}
              type="button"
              className={`btn ${way === by ? 'btn-primary' : 'btn-quiet'}`}
              aria-pressed={way === by}
              onClick={() => {
                onBy(way);
              }}
            >
              {`by ${way}`}
            </button>
          ))}
        </p>
      )}
      <table className="plain">
        <thead>
          <tr>
            <th>{by}</th>
            <th>they are</th>
          </tr>
        </thead>
        <tbody>
          {own.map((g) => (
            <tr key={g.name}>
              <td>
                {isColour(g.name) && (
                  <svg width="14" height="14" aria-hidden="true" className="me-1">
                    <rect width="14" height="14" fill={g.name} stroke="var(--ink-2)" />
                  </svg>
                )}
                {g.label}
                <span className="quiet d-block">{`${g.count} ${g.count === 1 ? 'line' : 'lines'}, ${sizeWords(g, system)}`}</span>
              </td>
              <td>
                <select
                  className="form-select"
                  style={{ minWidth: '7rem' }}
                  aria-label={`${g.label} is`}
                  value={roles[g.name] ?? 'stays'}
                  onChange={(e) => {
                    onRole(g.name, e.target.value as Role);
                  }}
                >
                  {ROLES.map((role) => (
                    <option key={role} value={role}>
                      {ROLE_WORDS[role]}
                    </option>
                  ))}
                </select>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </fieldset>
  );
}
