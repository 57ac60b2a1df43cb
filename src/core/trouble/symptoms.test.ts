import { fromParameters } from '../geometry/error-parameters';
import { cornersOf, displacement } from '../geometry/affine';
import { PARTS, type Part } from '../verdict/parts';
import { evidenceFor, nextStepFor, SYMPTOM_IDS, SYMPTOMS, symptomOf, type SymptomFacts } from './symptoms';

const FACTS: SymptomFacts = { parts: null, fault: null, toleranceMm: 0.3, isMarkUseKnown: true };
const parts = (found: Partial<Record<Part, number>>, intervalMm = 0.05) =>
  PARTS.map((part) => ({ part, effectMm: found[part] ?? 0, effectIntervalMm: intervalMm }));

it('every symptom is described once, and every part of the error is some symptom', () => {
  expect(SYMPTOMS.map((s) => s.id)).toEqual([...SYMPTOM_IDS]);
  expect(new Set(SYMPTOMS.flatMap((s) => s.parts))).toEqual(new Set(PARTS));
  for (const s of SYMPTOMS) {
    expect(s.lookFirst.length).toBeGreaterThan(0);
    expect(symptomOf(s.id)).toBe(s);
  }
  expect(symptomOf('something else')).toBeUndefined();
});

describe('the picture of a symptom is drawn by the map of the very part it stands for', () => {
  it.each(SYMPTOMS.filter((s) => s.parts.length > 0).map((s) => [s.id, s] as const))('%s', (_, symptom) => {
    const drawn = symptom.drawn[0];
    if (!drawn) throw new Error('no picture');
    expect(symptom.parts.some((part) => drawn[part] !== 0)).toBe(true);
    const far = cornersOf(100, 140).map((p) => {
      const d = displacement(fromParameters(drawn), p);
      return Math.hypot(d.x, d.y);
    });
    // Seen without doubt on a card, and still on it.
    expect(Math.max(...far)).toBeGreaterThan(4);
    expect(Math.max(...far)).toBeLessThan(25);
  });
});

describe('evidence', () => {
  const of = (id: (typeof SYMPTOM_IDS)[number]) => SYMPTOMS.find((s) => s.id === id) ?? SYMPTOMS[0]!;
  it.each([
    ['one-side', { offsetAlongMm: -0.4 }, { kind: 'agrees', part: 'offsetAlongMm', effectMm: 0.4 }],
    ['turned', { rotationRad: 0.2 }, { kind: 'agrees', part: 'rotationRad', effectMm: 0.2 }],
    ['leaning', { squareness: 0.2 }, { kind: 'agrees', part: 'squareness', effectMm: 0.2 }],
    ['one-end', { scaleAlong: 0.25 }, { kind: 'agrees', part: 'scaleAlong', effectMm: 0.25 }],
    ['turned', { offsetAlongMm: 0.9 }, { kind: 'contradicts', atMostMm: 0.05 }],
    ['one-side', { offsetAcrossMm: 0.03 }, { kind: 'contradicts', atMostMm: 0.08 }],
  ] as const)('%s with %j', (id, found, evidence) => {
    const got = evidenceFor(of(id), { ...FACTS, parts: parts(found) });
    expect(got).toEqual({
      ...evidence,
      ...('atMostMm' in evidence && { atMostMm: expect.closeTo(evidence.atMostMm, 9) as number }),
    });
  });
  it('a part too small to act on, or not surely there, speaks for nothing', () => {
    expect(evidenceFor(of('one-side'), { ...FACTS, parts: parts({ offsetAcrossMm: 0.059 }, 0.01) }).kind).toBe(
      'contradicts',
    );
    expect(evidenceFor(of('one-side'), { ...FACTS, parts: parts({ offsetAcrossMm: 0.2 }, 0.25) }).kind).toBe(
      'contradicts',
    );
  });
  it('nothing measured says nothing', () => {
    for (const s of SYMPTOMS) expect(evidenceFor(s, FACTS).kind).toBe('not-measured');
  });
  it('"different every time" is told by loads, not by parts', () => {
    const facts = { ...FACTS, parts: parts({ offsetAcrossMm: 0.5 }) };
    expect(evidenceFor(of('each-time'), facts).kind).toBe('not-measured');
    expect(evidenceFor(of('each-time'), { ...facts, fault: 'reading' }).kind).toBe('agrees');
    expect(evidenceFor(of('each-time'), { ...facts, fault: 'both' }).kind).toBe('agrees');
    expect(evidenceFor(of('each-time'), { ...facts, fault: 'calibration' }).kind).toBe('contradicts');
  });
  it('a turn asks for the test of the marks where that is not known, once there is something to compare with', () => {
    expect(nextStepFor(of('turned'), FACTS)).toBe('full-check');
    const known = { ...FACTS, parts: parts({}) };
    expect(nextStepFor(of('turned'), known)).toBe('full-check');
    expect(nextStepFor(of('turned'), { ...known, isMarkUseKnown: false })).toBe('mark-test');
  });
});
