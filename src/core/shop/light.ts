/** Light at the machine while its eye looks for the marks. */
export const LIGHTS = ['not_told', 'room', 'daylight', 'sun', 'shaded'] as const;
export type Light = (typeof LIGHTS)[number];

export const LIGHT_WORDS: Readonly<Record<Light, string>> = {
  not_told: 'not told',
  room: 'lamps of the room',
  daylight: 'daylight, no sun on it',
  sun: 'sun or a lamp right on it',
  shaded: 'shaded by hand or card',
};
