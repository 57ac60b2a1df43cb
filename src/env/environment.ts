import { z } from 'zod';

/** A missing DATABASE_URL would make the driver try port 5432 on its own: it is checked here instead. */
const Environment = z.object({
  DATABASE_URL: z.url({ protocol: /^postgres(ql)?$/ }),
  RED_PLUMB_HOST: z.string().optional(),
  RED_PLUMB_NOW: z.iso.datetime().optional(),
  /** The port that phones use; set by the start command, which opens and closes it. */
  RED_PLUMB_DOOR_PORT: z.coerce.number().int().min(1).max(65535).optional(),
});

export type Environment = z.infer<typeof Environment>;

export function environment(): Environment {
  const parsed = Environment.safeParse(process.env);
  if (!parsed.success) {
    throw new Error(`The environment is not complete. ${z.prettifyError(parsed.error)} Start with "npm run demo".`);
  }
  return parsed.data;
}

/**
 * Whether this process may be reached from beyond the machine: then nothing answers without sign-in. Only a start that
 * binds loopback says otherwise, so that a server started by hand is shut, not open.
 */
export const isBeyondLoopback = (): boolean => process.env.RED_PLUMB_BOUND !== 'loopback';
