import { setTimeout as pause } from 'node:timers/promises';
import type { Pool, PoolClient } from 'pg';
import { connectionPool } from './client';
import { testDatabase, type TestDatabase } from './database.testing';

let place: TestDatabase;
let pool: Pool;
beforeAll(async () => {
  place = await testDatabase();
  pool = connectionPool(place.url, 2);
});
afterAll(async () => {
  await pool.end();
  await place.close();
});

/** Cuts a connection off as a server does that goes down, and waits until this end has heard it, two seconds at most. */
async function cutOff(client: PoolClient): Promise<void> {
  const { rows } = await client.query<{ pid: number }>('select pg_backend_pid() as pid');
  const heard = new Promise((resolve) => client.once('end', resolve));
  await place.query('select pg_terminate_backend($1)', [rows[0]?.pid]);
  await Promise.race([heard, pause(2000, null, { ref: false })]);
}

it('a connection cut off between two questions of a transaction refuses the next and ends nothing else', async () => {
  const client = await pool.connect();
  try {
    await client.query('begin');
    await cutOff(client);
    await expect(client.query('select 1')).rejects.toThrow(/not queryable|[Cc]onnection/);
  } finally {
    client.release();
  }
  expect((await pool.query('select 2 as two')).rows).toEqual([{ two: 2 }]);
});

it('a connection cut off while it is idle is left out', async () => {
  const client = await pool.connect();
  client.release();
  await cutOff(client);
  await pause(0);
  expect(pool.idleCount).toBe(0);
  expect((await pool.query('select 3 as three')).rows).toEqual([{ three: 3 }]);
});
