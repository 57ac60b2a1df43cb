import type { Ring } from './outline';

/** Larger rings are cleaned by the polygon package at once: looking at all pairs would take longer. */
const MOST_CORNERS = 400;

type At = Ring[number];

const side = (a: At, b: At, p: At): number => (b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x);

/** Whether two straight pieces meet anywhere, touching included. */
function meet(a: At, b: At, c: At, d: At): boolean {
  if (Math.max(a.x, b.x) < Math.min(c.x, d.x) || Math.max(c.x, d.x) < Math.min(a.x, b.x)) return false;
  if (Math.max(a.y, b.y) < Math.min(c.y, d.y) || Math.max(c.y, d.y) < Math.min(a.y, b.y)) return false;
  return side(a, b, c) * side(a, b, d) <= 0 && side(c, d, a) * side(c, d, b) <= 0;
}

/** True where a closed line surely crosses or touches itself nowhere; false where it does, or is too long to be looked at. */
export function isSimple(ring: Ring): boolean {
  const n = ring.length;
  if (n < 3 || n > MOST_CORNERS) return false;
  for (const [i, a] of ring.entries()) {
    const b = ring[(i + 1) % n] ?? a;
    // Neighbours share a corner; the last piece is the first one's neighbour.
    for (let j = i + 2; j < n - (i === 0 ? 1 : 0); j++) {
      const c = ring[j] ?? a;
      if (meet(a, b, c, ring[(j + 1) % n] ?? c)) return false;
    }
  }
  return true;
}
