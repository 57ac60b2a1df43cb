/** What can happen to a setup between checks, and what it happens to: everything that shares that thing is touched. */
export const EVENT_KINDS = [
  { kind: 'moved', words: 'machine was moved', target: 'cutter' },
  { kind: 'power_cut', words: 'power was cut', target: 'cutter' },
  { kind: 'new_blade', words: 'new blade or holder', target: 'cutter' },
  { kind: 'firmware', words: 'firmware was updated', target: 'cutter' },
  { kind: 'rollers', words: 'rollers or mat were changed', target: 'cutter' },
  { kind: 'long_idle', words: 'stood idle for long', target: 'cutter' },
  { kind: 'program_updated', words: 'program was updated', target: 'program' },
  { kind: 'reinstalled', words: 'program was installed anew', target: 'program' },
  { kind: 'other_computer', words: 'another computer sends now', target: 'program' },
  { kind: 'driver', words: 'driver, tray or paper type was changed', target: 'printer' },
  { kind: 'new_material', words: 'new batch of material', target: 'setup' },
  { kind: 'larger_page', words: 'a larger page than was checked', target: 'setup' },
  { kind: 'seen_out', words: 'a cut was seen out of register', target: 'setup' },
] as const;

export type EventKind = (typeof EVENT_KINDS)[number]['kind'];

/** Written by the application itself when a machine setting gets another value: every setup of that cutter is touched. */
export const SETTING_CHANGED = 'setting_changed';

/** Written by the application itself when a shared thing is described anew. */
export const DESCRIBED_ANEW = 'described_anew';

/** Written by the application itself when a limit is changed: the machine is as it was, so no state follows from it. */
export const LIMIT_CHANGED = 'limit_changed';

export const isAutomatic = (kind: string): boolean => [SETTING_CHANGED, DESCRIBED_ANEW, LIMIT_CHANGED].includes(kind);

export function eventWords(kind: string): string {
  if (kind === DESCRIBED_ANEW) return 'its description was changed';
  if (kind === LIMIT_CHANGED) return 'the limit was changed';
  if (kind === SETTING_CHANGED) return 'a machine setting was changed';
  return EVENT_KINDS.find((e) => e.kind === kind)?.words ?? kind;
}
