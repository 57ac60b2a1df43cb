/**
 * A hundred connections for a minute against the production build on loopback, with the shop of ten years under it: people at
 * work, each of whom asks for a page, a file or keeps a daily check and then works on for a while; told apart, what the same
 * server answers where nobody ever pauses. Part of `npm run bench`; DATABASE_URL names the database, PORT the server.
 */
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { Agent, request } from 'node:http';
import { seededRng } from '@/core/math/random';
import { database } from '@/db/client';
import { findMaterials, findSetups, findShops } from '@/db/queries/shop';
import { print } from './timing';

const CONNECTIONS = 100;
const SECONDS = 60;
/** What one does at the machine between two looks at the screen, on average: an unhurried hundred, and a hurried one. */
const PAUSES_MS = [10_000, 5000] as const;
const NO_PAUSE_SECONDS = 10;
const WARM_SECONDS = 10;

const db = database();
const shop = (await findShops(db)).find((s) => s.name === 'Ten years by the river');
if (!shop) throw new Error('the large shop is not in this database');
const setups = await findSetups(db, shop.id);
const [material] = await findMaterials(db, shop.id);
const port = Number(process.env.PORT);

interface Manifest {
  readonly node: Readonly<Record<string, { readonly exportedName: string }>>;
}
const manifest = JSON.parse(readFileSync('.next/server/server-reference-manifest.json', 'utf8')) as Manifest;
const keepId = Object.entries(manifest.node).find(([, v]) => v.exportedName === 'dailyCheckKept')?.[0] ?? '';

const agent = new Agent({ keepAlive: true, maxSockets: CONNECTIONS });
const random = seededRng(1);
const one = <T>(list: readonly T[]): T => {
  const found = list[Math.floor(random() * list.length)];
  if (found === undefined) throw new Error('nothing to choose from');
  return found;
};

interface Asked {
  readonly what: string;
  readonly path: string;
  readonly body?: string;
}

const setupId = (): string => one(setups).setup.id;
const page = (what: string, path: () => string) => (): Asked => ({ what, path: path() });

/** What a shop does all day, in about these shares. */
const WORK: readonly (() => Asked)[] = [
  ...Array.from({ length: 4 }, () => (): Asked => {
    const id = setupId();
    const borders = { leftMm: 3, rightMm: 3 + random() / 10, topMm: 3, bottomMm: 3 };
    const check = { id: randomUUID(), setupId: id, materialId: material?.id, side: 'outside', borders };
    const body = JSON.stringify([{ ...check, borderSdMm: 0.07, note: '' }]);
    return { what: 'keep a daily check', path: `/setups/${id}/daily`, body };
  }),
  page('daily checks', () => `/setups/${setupId()}/daily`),
  page('bench', () => '/'),
  page('setup', () => `/setups/${setupId()}`),
  page('jobs', () => '/jobs'),
  page('history', () => '/history'),
  page('value card', () => `/setups/${setupId()}/card`),
  page('blade and force', () => `/setups/${setupId()}/blade`),
];

interface Answered {
  readonly what: string;
  readonly ms: number;
  /** What was wrong with the answer, or why there was none. */
  readonly fault: string | null;
}

const headersOf = ({ body }: Asked): Record<string, string> => ({
  cookie: `shop=${shop.id}`,
  ...(body === undefined ? {} : { 'next-action': keepId, 'content-type': 'text/plain;charset=UTF-8' }),
});

/** What a right answer holds: an action tells that it kept, a card is a PDF, a page has its headline. */
function wordsOf({ body, path }: Asked): string {
  if (body !== undefined) return '"ok":true';
  return path.endsWith('/card') ? '%PDF' : '<h1';
}

function ask(asked: Asked): Promise<Answered> {
  const from = performance.now();
  const told = (fault: string | null): Answered => ({ what: asked.what, ms: performance.now() - from, fault });
  return new Promise((resolve) => {
    const send = (): void => {
      const sent = request(
        {
          ...{ agent, port, host: '127.0.0.1', path: asked.path },
          ...{ method: asked.body === undefined ? 'GET' : 'POST', headers: headersOf(asked) },
        },
        (answer) => {
          let text = '';
          answer.on('data', (bytes: Buffer) => (text += bytes.toString('latin1')));
          answer.on('end', () => {
            const isRight = answer.statusCode === 200 && text.includes(wordsOf(asked));
            resolve(told(isRight ? null : `status ${answer.statusCode ?? 'none'}, ${text.slice(0, 200)}`));
          });
        },
      );
      sent.on('error', (error: NodeJS.ErrnoException) => {
        // A resting connection that the server closes in the moment it is used again: browsers ask anew, and so does this.
        if (sent.reusedSocket && error.code === 'ECONNRESET') send();
        else resolve(told(`${error.code ?? ''} ${error.message}`));
      });
      sent.end(asked.body);
    };
    send();
  });
}

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

async function run(seconds: number, pauseMs: number): Promise<readonly Answered[]> {
  const end = performance.now() + seconds * 1000;
  const answers: Answered[] = [];
  const person = async (): Promise<void> => {
    await pause(random() * pauseMs);
    while (performance.now() < end) {
      const asked = one(WORK)();
      answers.push(await ask(asked));
      // The screen that kept something asks for itself anew at once.
      if (asked.body !== undefined) answers.push(await ask({ what: 'daily checks', path: asked.path }));
      if (pauseMs > 0) await pause(Math.min(-Math.log(1 - random()) * pauseMs, end - performance.now()));
    }
  };
  await Promise.all(Array.from({ length: CONNECTIONS }, person));
  return answers;
}

function tell(name: string, answers: readonly Answered[], seconds: number): void {
  const sorted = answers.map((a) => a.ms).sort((a, b) => a - b);
  const at = (share: number): string => (sorted[Math.floor(share * (sorted.length - 1))] ?? 0).toFixed(0).padStart(6);
  const faults = answers.flatMap((a) => a.fault ?? []);
  print(
    `${name.padEnd(30)}${String(sorted.length).padStart(7)}${(sorted.length / seconds).toFixed(0).padStart(6)}/s   median ${at(0.5)} ms, 99 % ${at(0.99)} ms, most ${at(1)} ms, ${faults.length} errors`,
  );
  for (const fault of new Set(faults)) print(`    ${fault}`);
}

function report(title: string, answers: readonly Answered[], seconds: number): void {
  print(title);
  tell('all', answers, seconds);
  for (const what of new Set(answers.map((a) => a.what)))
    tell(
      `  ${what}`,
      answers.filter((a) => a.what === what),
      seconds,
    );
}

// The first of each kind are compiled and connected for, in every process of the server.
await run(WARM_SECONDS, 0);
for (const pauseMs of PAUSES_MS)
  report(
    `${CONNECTIONS} connections for ${SECONDS} s, ${pauseMs / 1000} s of work between two questions on average`,
    await run(SECONDS, pauseMs),
    SECONDS,
  );
report(
  `${CONNECTIONS} connections for ${NO_PAUSE_SECONDS} s, nobody ever pauses`,
  await run(NO_PAUSE_SECONDS, 0),
  NO_PAUSE_SECONDS,
);
process.exit(0);
