import { z } from 'zod';

/** A missing DATABASE_URL would make the driver try port 5432 on its own: it is checked here instead. */
const Environment = z.object({
  DATABASE_URL: z.url({ protocol: /^postgres(ql)?$/ }),
  RED_PLUMB_HOST: z.string().optional(),
  RED_PLUMB_NOW: z.iso.datetime().optional(),
});

export type Environment = z.infer<typeof Environment>;

export function environment(): Environment {
  const parsed = Environment.safeParse(process.env);
  if (!parsed.success) {
    throw new Error(`The environment is not complete. ${z.prettifyError(parsed.error)} Start with "npm run demo".`);
  }
  return parsed.data;
}
