/**
 * JSON with sorted keys, no white space, numbers as the shortest text that reads back the same: equal content, equal bytes.
 * Throws on values JSON cannot hold (NaN, infinities, undefined members): content must be plain data.
 */
export function canonicalJson(value: unknown): string {
  if (value === null || typeof value === 'boolean' || typeof value === 'string') return JSON.stringify(value);
  if (typeof value === 'number') {
    if (!Number.isFinite(value)) throw new Error(`${value} has no canonical form`);
    return JSON.stringify(Object.is(value, -0) ? 0 : value);
  }
  if (Array.isArray(value)) return `[${value.map(canonicalJson).join(',')}]`;
  if (typeof value !== 'object') throw new Error(`a ${typeof value} has no canonical form`);
  const members = Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1));
  return `{${members.map(([key, member]) => `${JSON.stringify(key)}:${canonicalJson(member)}`).join(',')}}`;
}
