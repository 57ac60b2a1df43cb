import { EventEmitter } from 'node:events';
import { pathToFileURL } from 'node:url';
import { testDatabase, type TestDatabase } from '../src/db/database.testing';

interface Child extends EventEmitter {
  kill: (signal: string) => void;
}
interface DoorModule {
  askDoor: (url: string) => Promise<{ isOpen: () => Promise<boolean | null>; end: () => Promise<void> }>;
  keepDoor: (options: { isOpen: () => Promise<boolean | null>; start: () => Child; lookEveryMs: number }) => {
    end: () => void;
  };
}

const load = async (): Promise<DoorModule> =>
  (await import(pathToFileURL(`${process.cwd()}/scripts/lib/door.mjs`).href)) as DoorModule;

const eventually = async (is: () => boolean): Promise<void> => {
  for (let i = 0; i < 200 && !is(); i++) await new Promise((resolve) => setTimeout(resolve, 10));
  expect(is()).toBe(true);
};

it('the second process lives while phones are let in, comes back when it dies, stays while nobody can tell, and ends with the first', async () => {
  const { keepDoor } = await load();
  let isOpen: boolean | null = false;
  const children: { child: Child; killed: string | null }[] = [];
  const door = keepDoor({
    isOpen: () => Promise.resolve(isOpen),
    lookEveryMs: 5,
    start: () => {
      const entry = { child: new EventEmitter() as Child, killed: null as string | null };
      entry.child.kill = (signal) => {
        entry.killed = signal;
        entry.child.emit('close');
      };
      children.push(entry);
      return entry.child;
    },
  });
  await new Promise((resolve) => setTimeout(resolve, 40));
  expect(children).toHaveLength(0);
  isOpen = true;
  await eventually(() => children.length === 1);
  children[0]?.child.emit('close');
  await eventually(() => children.length === 2);
  isOpen = null;
  await new Promise((resolve) => setTimeout(resolve, 40));
  expect(children[1]?.killed).toBeNull();
  isOpen = false;
  await eventually(() => children[1]?.killed === 'SIGTERM');
  isOpen = true;
  await eventually(() => children.length === 3);
  door.end();
  expect(children[2]?.killed).toBe('SIGTERM');
  await new Promise((resolve) => setTimeout(resolve, 40));
  expect(children).toHaveLength(3);
});

describe('whether the door is open', () => {
  let db: TestDatabase;
  beforeAll(async () => {
    db = await testDatabase();
  });
  afterAll(() => db.close());

  it('is no without a row, no when shut, yes when open, and unknown when the records cannot be reached', async () => {
    const { askDoor } = await load();
    const [{ current_database: name }] = (await db.query('select current_database()')) as [
      { current_database: string },
    ];
    const url = new URL(process.env.TEST_DATABASE_URL ?? '');
    url.pathname = `/${name}`;
    const door = await askDoor(url.toString());
    expect(await door.isOpen()).toBe(false);
    await db.query(`insert into access (passphrase_hash, cookie_secret, is_open) values ('a:b', 'c', false)`);
    expect(await door.isOpen()).toBe(false);
    await db.query('update access set is_open = true');
    expect(await door.isOpen()).toBe(true);
    await door.end();
    const nowhere = await askDoor('postgres://nobody@127.0.0.1:1/none');
    expect(await nowhere.isOpen()).toBeNull();
    await nowhere.end();
  });
});
