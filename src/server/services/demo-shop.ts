import 'server-only';
import { spawn } from 'node:child_process';
import { sql } from 'drizzle-orm';
import type { Database } from '@/db/client';
import { SHOP_TABLES, SHARED_TABLES } from '@/db/archive/shop-tables';
import { environment } from '@/env/environment';

const SEED = ['--no-deprecation', '--conditions=react-server', '--import', 'tsx', 'scripts/seed.ts'];

/**
 * Adds the demo shop where there is none: a process of its own makes its past with a clock of its own, in one transaction.
 * Ended by `signal` it leaves nothing. @throws where the process fails; its last words are in the message.
 */
export function addDemoShop(onStep: (done: number, of: number) => void, signal: AbortSignal): Promise<void> {
  return new Promise((resolve, reject) => {
    const env = { ...process.env, DATABASE_URL: environment().DATABASE_URL };
    const child = spawn(process.execPath, SEED, { env, signal, stdio: ['ignore', 'pipe', 'pipe'] });
    let lastWords = '';
    child.stderr.on('data', (bytes: Buffer) => (lastWords = `${lastWords}${bytes.toString()}`.slice(-2000)));
    child.stdout.on('data', (bytes: Buffer) => {
      for (const [, done, of] of bytes.toString().matchAll(/^(\d+) of (\d+)$/gm)) onStep(Number(done), Number(of));
    });
    child.on('error', reject);
    child.on('close', (code) => {
      if (code === 0) resolve();
      else reject(new Error(`the demo shop was not made: ${lastWords}`));
    });
  });
}

/** Removes the demo shop with everything in it, or nothing. Check sheets stay: other shops may use the same. */
export async function removeDemoShop(database: Database): Promise<void> {
  await database.transaction(async (session) => {
    const { rows } = await session.execute<{ id: string }>(sql`select id from shop where is_demo for update`);
    const id = rows[0]?.id;
    if (id === undefined) return;
    await session.execute(sql`select set_config('red_plumb.removes_demo', ${id}, true)`);
    await session.execute(sql`set constraints all deferred`);
    const own = sql.raw(`'${id}'::uuid`);
    for (const { name, where } of [...SHOP_TABLES].reverse()) {
      if (SHARED_TABLES.has(name)) continue;
      const parts = where.split('$1').map((part) => sql.raw(part));
      await session.execute(sql`delete from ${sql.identifier(name)} where ${sql.join(parts, own)}`);
    }
  });
}
