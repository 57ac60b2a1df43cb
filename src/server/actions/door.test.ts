/** @jest-environment node */
import { log } from '../log';
import { isLetIn } from '../services/door-guard';
import { letPhoneGo, letPhonesIn, shutPhonesOut } from './door';
import { chooseTheme, startShop } from './shop';

jest.mock('next/cache', () => ({ revalidatePath: jest.fn() }));
jest.mock('next/headers', () => ({
  headers: () => Promise.resolve(new Headers({ 'x-request-number': 'K7QM-2X9D' })),
}));
jest.mock('../services/door-guard');
jest.mock('../services/database', () => ({
  database: () => {
    throw new Error('the records were reached');
  },
}));

const letIn = jest.mocked(isLetIn);

beforeEach(() => {
  process.env.RED_PLUMB_BOUND = 'beyond';
});
afterEach(() => {
  delete process.env.RED_PLUMB_BOUND;
});

it('a phone that is in can neither change the passphrase, nor shut the door, nor sign others out', async () => {
  letIn.mockResolvedValue(true);
  const answers = await Promise.all([
    letPhonesIn({ passphrase: 'otter quarry ferry rope lantern' }),
    shutPhonesOut('shut'),
    letPhoneGo({ id: '0b9d1c2e-0000-4000-8000-000000000001' }),
  ]);
  for (const answer of answers) expect(answer.ok ? '' : answer.message).toMatch(/Only at the machine/);
});

it('an action asks again who is let in, before it looks at anything', async () => {
  letIn.mockResolvedValue(false);
  for (const answer of [await chooseTheme('dark'), await startShop({}), await letPhonesIn({})])
    expect(answer).toEqual({ ok: false, kind: 'not-saved', message: 'Sign in first: what you entered is still here.' });
});

it('a fault inside is logged and answered in plain words, without its text', async () => {
  letIn.mockResolvedValue(true);
  const logged = jest.spyOn(log, 'error').mockImplementation(() => undefined);
  const answer = await startShop({
    id: '0b9d1c2e-0000-4000-8000-000000000001',
    name: 'Kingfisher signs',
    personName: 'Me',
    unitSystem: 'mm',
    timeZone: 'UTC',
  });
  expect(answer.ok ? '' : answer.message).toBe(
    'This could not be saved just now. What you entered is still here: try again. (Number in the log: K7QM-2X9D)',
  );
  expect(logged.mock.calls[0]?.[0]).toMatchObject({ request: 'K7QM-2X9D', kind: 'fault' });
  logged.mockRestore();
});

it('a NUL in what was typed is refused in words before the database is asked', async () => {
  letIn.mockResolvedValue(true);
  const answer = await startShop({
    id: '0b9d1c2e-0000-4000-8000-000000000001',
    name: 'King\u0000fisher',
    personName: 'Me',
    unitSystem: 'mm',
    timeZone: 'UTC',
  });
  expect(answer.ok ? '' : answer.message).toMatch(/cannot be saved \(NUL\)/);
});

it('the letters of its escape are not a NUL', async () => {
  letIn.mockResolvedValue(true);
  const answer = await startShop({
    id: '0b9d1c2e-0000-4000-8000-000000000001',
    name: 'King\\u0000fisher',
    personName: 'Me',
    unitSystem: 'mm',
    timeZone: 'UTC',
  });
  expect(answer.ok ? '' : answer.message).not.toMatch(/NUL/);
});

it.each([
  [Object.assign(new Error('x'), { code: '53100' }), /^The disk is full, so nothing was saved/],
  [
    new Error('Failed query', { cause: Object.assign(new Error('x'), { code: 'ECONNREFUSED' }) }),
    /^The database has stopped/,
  ],
  [new Error('timeout exceeded when trying to connect'), /^The database has stopped/],
  [Object.assign(new Error('x'), { code: '57P03' }), /^The database has stopped/],
  [new Error('anything else'), /^This could not be saved just now.*Number in the log: K7QM-2X9D/],
])('%s is answered with its true reason', async (fault, words) => {
  letIn.mockRejectedValue(fault);
  const logged = jest.spyOn(log, 'error').mockImplementation(() => undefined);
  const answer = await chooseTheme('dark');
  expect(answer.ok ? '' : answer.message).toMatch(words);
  logged.mockRestore();
});
