import { z } from 'zod';

/** A missing DATABASE_URL would make the driver try port 5432 on its own: it is checked here instead. */
const Environment = z.object({
  DATABASE_URL: z.url({ protocol: /^postgres(ql)?$/ }),
  /** The address under which others reach this server, where one was set. */
  RED_PLUMB_URL: z.preprocess((url) => (url === '' ? undefined : url), z.url().optional()),
  /** The folder whose disk is watched; set by the start command. */
  RED_PLUMB_DATA: z.string().optional(),
  RED_PLUMB_NOW: z.iso.datetime().optional(),
  /** The port that phones use; set by the start command, which opens and closes it. */
  RED_PLUMB_DOOR_PORT: z.coerce.number().int().min(1).max(65535).optional(),
});

export type Environment = z.infer<typeof Environment>;

export function environment(): Environment {
  const parsed = Environment.safeParse(process.env);
  if (!parsed.success) {
    throw new Error(`The environment is not complete. ${z.prettifyError(parsed.error)} Start with "npm start".`);
  }
  return parsed.data;
}

/**
 * Whether this process may be reached from beyond the machine: then nothing answers without sign-in. Only a start that
 * binds loopback says otherwise, so that a server started by hand is shut, not open.
 */
export const isBeyondLoopback = (): boolean => process.env.RED_PLUMB_BOUND !== 'loopback';

/** The name under which this server answers beyond its own addresses; null where none was set. */
export const ownName = (): string | null => {
  const { RED_PLUMB_URL: url } = process.env;
  return url !== undefined && URL.canParse(url) ? new URL(url).hostname.toLowerCase() : null;
};

/** Cookies go over https alone where the address of this server was set with https. The machine itself has no certificate. */
export const sendsCookiesSecurely = (): boolean =>
  isBeyondLoopback() && (process.env.RED_PLUMB_URL ?? '').startsWith('https:');
