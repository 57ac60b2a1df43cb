import { standardNormal, type Rng } from '../math/random';

/** A picture before its sensor: levels by rows, 0 black to 255 white. */
export interface Brightness {
  readonly width: number;
  readonly height: number;
  readonly levels: Float32Array;
}

const NOISE_LENGTH = 65_536;

/** Levels as bytes with the sensor's noise: every row begins at another place of the same long list. */
export function withSensorNoise({ width, height, levels }: Brightness, noiseLevels: number, rng: Rng): Uint8Array {
  const noise = Float32Array.from({ length: NOISE_LENGTH }, () => noiseLevels * standardNormal(rng));
  const count = noise.length;
  // A clamped array rounds and keeps to 0..255 by itself.
  const data = new Uint8ClampedArray(levels.length);
  for (let row = 0; row < height; row++) {
    const shift = Math.floor(rng() * count);
    const end = (row + 1) * width;
    for (let i = row * width; i < end; i++) data[i] = levels[i]! + noise[(i + shift) % count]!;
  }
  return new Uint8Array(data.buffer);
}
