import type { SaveReadingInput } from '@/contracts/inputs';

const KEY = 'red-plumb-readings-not-sent';

/** Readings made while the shop's server could not be reached, kept in this browser until they are sent. */
export function waitingReadings(): readonly SaveReadingInput[] {
  try {
    const stored: unknown = JSON.parse(localStorage.getItem(KEY) ?? '[]');
    return Array.isArray(stored) ? (stored as SaveReadingInput[]) : [];
  } catch {
    return [];
  }
}

function store(readings: readonly SaveReadingInput[]): void {
  localStorage.setItem(KEY, JSON.stringify(readings));
}

export function keepWaiting(reading: SaveReadingInput): void {
  store([...waitingReadings().filter((r) => r.id !== reading.id), reading]);
}

export function noLongerWaiting(id: string): void {
  store(waitingReadings().filter((r) => r.id !== id));
}
