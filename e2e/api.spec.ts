import { request as httpRequest } from 'node:http';
import { expect, test } from '@playwright/test';

interface Description {
  readonly openapi: string;
  readonly paths: Readonly<Record<string, { readonly post: { readonly requestBody: object } }>>;
  readonly components: { readonly schemas: Readonly<Record<string, object>> };
}

const readings = [-75, 0, 75].flatMap((xMm) =>
  [-115, 0, 115].flatMap((yMm) =>
    (['across', 'along'] as const).map((axis) => ({
      axis,
      xMm,
      yMm,
      displacementMm: axis === 'across' ? 0.2 : 0,
      standardUncertaintyMm: 0.05,
    })),
  ),
);
const AREA = { workWidthMm: 180, workLengthMm: 260, toleranceMm: 0.3 };

/** Forty plain discs of 50 mm on A4 without marks. */
const LAYOUT = {
  draft: {
    ...{ laysOut: 'here', form: 'sheet', insetMm: 0, backInsetMm: null, isMirrored: false, gapMm: 2 },
    ...{ spareFrontMm: 0, spareRearMm: 0, artBox: null, yieldShare: 0.95, warmingK: 0 },
    page: { name: 'A4', widthMm: 210, lengthMm: 297 },
    edge: { kind: 'none', mm: 0 },
    items: [
      {
        ...{ id: '0b6b62c4-162a-4f2e-8cff-fefb14233c4a', name: 'Disc', quantity: 40, widthMm: 50, lengthMm: 50 },
        ...{ mayTurn: false, art: { kind: 'plain', shape: 'ellipse', cornerMm: 0 } },
      },
    ],
  },
  margins: { leftMm: 5, rightMm: 5, topMm: 5, bottomMm: 5 },
  marks: { kind: 'none', sizeMm: 0, keepOutMm: 0, edgeMinMm: 0 },
};

test('/api/v1 describes itself, and answers each question it describes', async ({ request }) => {
  const described = await request.get('/api/v1/openapi.json');
  expect(described.status()).toBe(200);
  const description = (await described.json()) as Description;
  expect(description.openapi).toBe('3.1.0');
  const refs = [...JSON.stringify(description).matchAll(/"#\/components\/schemas\/(\w+)"/g)].map((m) => m[1] ?? '');
  expect(refs.length).toBeGreaterThan(5);
  for (const name of refs) expect(Object.keys(description.components.schemas)).toContain(name);
  const file = { text: 'IN;SP1;PU400,400;PD800,400;' };
  // A feed of 0.4 mm a metre, read left and right of ten stations.
  const stations = Array.from({ length: 20 }, (_, i) => {
    const atMm = 500 * (1 + Math.floor(i / 2));
    return {
      atMm,
      asideMm: i % 2 === 0 ? -300 : 300,
      acrossMm: 0.02 * Math.cos(i),
      alongMm: 0.0004 * atMm + 0.02 * Math.sin(3 * i),
    };
  });
  const questions: Readonly<Record<string, object>> = {
    fit: { ...AREA, readings },
    verdict: { ...AREA, readings },
    border: { ...AREA, readings },
    settings: {
      error: { offsetAcrossMm: 0.5 },
      workWidthMm: 180,
      workLengthMm: 260,
      settings: [
        { id: 'X', actsOn: 'offset_across', unit: 'mm', step: 0.1, minValue: -5, maxValue: 5, sense: 1, value: 0 },
      ],
    },
    roll: { stations, toleranceMm: 0.3, registration: { kind: 'origin', originSdMm: 0.03 } },
    layout: LAYOUT,
    drawing: { file },
    'corrected-file': { file, cut: ['pen 1'], error: { offsetAcrossMm: 0.5 }, centre: { xMm: 0, yMm: 0 } },
  };
  expect(Object.keys(description.paths).sort()).toEqual(
    Object.keys(questions)
      .map((name) => `/api/v1/${name}`)
      .sort(),
  );
  const answers: Record<string, Record<string, unknown>> = {};
  for (const [name, data] of Object.entries(questions)) {
    const answer = await request.post(`/api/v1/${name}`, { data });
    expect(`${name} ${answer.status()}`).toBe(`${name} 200`);
    answers[name] = (await answer.json()) as Record<string, unknown>;
  }
  expect(answers.verdict?.verdict).toBe(answers.fit?.verdict);
  const { along } = answers.roll as { along: { perMetreMm: { low: number; high: number } } };
  expect(along.perMetreMm.low).toBeLessThan(0.4);
  expect(along.perMetreMm.high).toBeGreaterThan(0.4);
  expect(answers.settings?.settings).toMatchObject([{ id: 'X', after: -0.5 }]);
  // 200 x 287 mm within the white edge hold 3 x 5 of 50 mm with 2 mm between.
  expect(answers.layout).toMatchObject({ sheets: 3, left: [{ perSheet: 15, beyond: 5 }] });
  expect(answers['corrected-file']?.file).toEqual({ text: 'IN;SP1;PU380,400;PD780,400;' });
});

test('/api/v1 tells what is wrong as problem details, by name and place', async ({ request }) => {
  const asked = async (path: string, options: Parameters<typeof request.post>[1]) => {
    const answer = await request.post(path, options);
    expect(answer.headers()['content-type']).toContain('application/problem+json');
    return (await answer.json()) as { type: string; status: number; detail?: string; errors?: unknown };
  };
  expect(await asked('/api/v1/weather', { data: {} })).toMatchObject({ status: 404 });
  expect(await asked('/api/v1/fit', { data: 'hello', headers: { 'content-type': 'text/plain' } })).toMatchObject({
    status: 415,
  });
  expect(
    await asked('/api/v1/fit', { data: Buffer.from('{"a":'), headers: { 'content-type': 'application/json' } }),
  ).toMatchObject({
    status: 400,
  });
  expect(await asked('/api/v1/fit', { data: { ...AREA, readings: [{ ...readings[0], xMm: 'left' }] } })).toMatchObject({
    status: 422,
    type: '/api/v1/problems/not-understood',
    errors: [{ pointer: '/readings/0/xMm' }],
  });
  expect(await asked('/api/v1/fit', { data: { ...AREA, readings: readings.slice(0, 1) } })).toMatchObject({
    status: 422,
    type: '/api/v1/problems/axis-missing',
  });
  expect(await asked('/api/v1/drawing', { data: { file: { text: '<svg>' } } })).toMatchObject({
    status: 422,
    type: '/api/v1/problems/not-a-drawing',
  });
});

/** The status that a body gets which never says how long it is. */
function statusOfUntold(address: string, megabytes: number): Promise<number> {
  return new Promise((resolve, reject) => {
    const headers = { 'content-type': 'application/json', 'transfer-encoding': 'chunked' };
    const asking = httpRequest(address, { method: 'POST', headers });
    const piece = Buffer.alloc(1024 * 1024, 0x20);
    const send = (left: number): void => {
      if (left === 0) asking.end();
      else asking.write(piece, () => setImmediate(send, left - 1));
    };
    asking.on('response', (answer) => {
      resolve(answer.statusCode ?? 0);
      asking.destroy();
    });
    asking.on('error', reject);
    send(megabytes);
  });
}

test('/api/v1 refuses more than 64 MiB, also when it is not told how much is coming', async ({ request, baseURL }) => {
  const told = await request.post('/api/v1/drawing', {
    data: Buffer.alloc(65 * 1024 * 1024, 0x20),
    headers: { 'content-type': 'application/json' },
  });
  expect(told.status()).toBe(413);
  expect(await statusOfUntold(`${baseURL}/api/v1/drawing`, 90)).toBe(413);
  expect((await request.get('/api/v1/openapi.json')).status()).toBe(200);
});
