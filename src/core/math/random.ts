/** A source of uniform numbers in [0, 1). Same seed, same sequence. */
export type Rng = () => number;

/**
 * Small fast counter-based generator (splitmix of 32 bits, two draws a number, 53 bits).
 * Good enough for simulations of 1e7 draws; not for secrets. Source: splitmix32 finaliser constants, from memory.
 */
export function seededRng(seed: number): Rng {
  let state = seed | 0;
  const next32 = (): number => {
    state = (state + 0x9e3779b9) | 0;
    let z = state ^ (state >>> 16);
    z = Math.imul(z, 0x21f0aaad);
    z ^= z >>> 15;
    z = Math.imul(z, 0x735a2d97);
    return (z ^ (z >>> 15)) >>> 0;
  };
  return () => (next32() * 2097152 + (next32() >>> 11)) / 9007199254740992;
}

/** One standard normal number (Box and Muller's cosine branch; no state is kept between calls). */
export function standardNormal(rng: Rng): number {
  return Math.sqrt(-2 * Math.log(1 - rng())) * Math.cos(2 * Math.PI * rng());
}

/** Joins numbers and words into one 32-bit seed (FNV-1a). */
export function seedFrom(...parts: readonly (string | number)[]): number {
  let hash = 0x811c9dc5;
  for (const character of parts.join('|')) {
    hash ^= character.codePointAt(0)!;
    hash = Math.imul(hash, 0x01000193);
  }
  return hash;
}
