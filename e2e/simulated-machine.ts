import type { Page } from '@playwright/test';
import { Client } from 'pg';

/**
 * Gives the simulated machine of the setup that is open this offset across and along, mm, and the same chance errors in every run: a
 * walk that counts presses must not meet another machine each time. Which way its settings turn stays its own.
 */
export async function setSimulatedOffset(page: Page, acrossMm: number, alongMm: number): Promise<void> {
  const setupId = /setups\/([0-9a-f-]{36})/.exec(page.url())?.[1] ?? '';
  const error = {
    offsetAcrossMm: acrossMm,
    offsetAlongMm: alongMm,
    rotationRad: 0.0002,
    scaleAcross: 0,
    scaleAlong: 0,
  };
  const client = new Client({ connectionString: process.env.DATABASE_URL ?? '' });
  await client.connect();
  try {
    const { rowCount } = await client.query(
      `update simulated_setup set seed = 1848, truth = jsonb_set(truth, '{machineError}', truth->'machineError' || $2::jsonb)
       where setup_id = $1`,
      [setupId, JSON.stringify(error)],
    );
    if (rowCount !== 1) throw new Error(`no simulated machine at ${page.url()}`);
  } finally {
    await client.end();
  }
}
