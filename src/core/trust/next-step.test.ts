import { nextStep, type StepFacts } from './next-step';

const calm: StepFacts = {
  state: 'in-register',
  hasConfirmation: true,
  isWithinLimit: true,
  eventKinds: [],
  signal: null,
};

it.each([
  ['in register', {}, null],
  ['never confirmed', { hasConfirmation: false, state: 'not-confirmed' }, 'quick-check'],
  ['stop', { state: 'stop' }, 'quick-check'],
  ['time has passed', { state: 'check-first' }, 'daily-check'],
  ['a new blade', { state: 'check-first', eventKinds: ['new_blade'] }, 'daily-check'],
  [
    'a program that was installed anew may scale otherwise',
    { state: 'check-first', eventKinds: ['reinstalled'] },
    'quick-check',
  ],
  ['one point beyond the limits is not acted on', { state: 'check-first', signal: 'first' }, 'another-piece'],
  ['a signal that stands', { state: 'check-first', signal: 'standing' }, 'quick-check'],
] as const)('%s', (_, change, wanted) => {
  expect(nextStep({ ...calm, ...change })).toBe(wanted);
});
