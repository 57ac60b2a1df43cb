import fc from 'fast-check';
import { apply, inverseOf, type Affine, type Point } from '@/core/geometry/affine';
import type { MoveRequest } from '../cut-file/cut-file';
import { moveHpgl, surveyHpgl } from './move-hpgl';
import { eachInstruction } from './hpgl-commands';
import { eachPlaceOf, follower } from './hpgl-strokes';
import { readHpgl } from './hpgl';

const by = (affine: Affine<'page', 'page'>, names = ['pen 1']): MoveRequest => ({
  by: 'colour',
  names,
  move: { affine },
});
const right = (mm: number): Affine<'page', 'page'> => ({ xx: 1, xy: 0, yx: 0, yy: 1, tx: mm, ty: 0 });

function moved(text: string, request: MoveRequest): string {
  const done = moveHpgl(text, request);
  if (!done.ok) throw new Error(`${done.error.where}: ${done.error.words}`);
  return done.value.text;
}

/** Lines drawn with a pen, by a follower of its own: absolute places in mm, one list for each stroke with the tool down. */
function drawnBy(text: string, pen: string): Point<'page'>[][] {
  const follow = follower();
  const lines: Point<'page'>[][] = [];
  const wrong = eachInstruction(text, (instruction) => {
    const stroke = follow(instruction);
    if (stroke?.pen !== pen || !stroke.isDown || stroke.path.length === 0) return null;
    const line: Point<'page'>[] = [];
    eachPlaceOf(stroke, (place) => line.push(place));
    lines.push(line);
    return null;
  });
  if (wrong) throw new Error(wrong.words);
  return lines;
}

describe('cut lines moved in a plotter file', () => {
  it('absolute: only the chosen pen, everything else byte for byte', () => {
    const text = 'IN;VS20;SP1;PU40,40;PD80,40,80,80;PU;SP2;PU400,400;PD440,400;PU0,0;SP0;';
    expect(moved(text, by(right(1)))).toBe('IN;VS20;SP1;PU80,40;PD120,40,120,80;PU;SP2;PU400,400;PD440,400;PU0,0;SP0;');
  });
  it('relative: written in absolute places, the other pen goes on where it would have been', () => {
    const text = 'IN;SP1;PA40,40;PR;PD40,0,0,40;PU;SP2;PD40,0;';
    const after = moved(text, by(right(1)));
    expect(drawnBy(after, 'pen 2')).toEqual(drawnBy(text, 'pen 2'));
    expect(drawnBy(after, 'pen 1')).toEqual(drawnBy(text, 'pen 1').map((l) => l.map((p) => ({ x: p.x + 1, y: p.y }))));
  });
  it('a moved pen that begins with the tool down where another pen ended starts at the moved place', () => {
    const text = 'IN;SP2;PU40,40;PD80,40;SP1;PD80,80;';
    expect(drawnBy(moved(text, by(right(1))), 'pen 1')).toEqual([
      [
        { x: 3, y: 1 },
        { x: 3, y: 2 },
      ],
    ]);
  });
  it('arcs and circles become chords within 5 um of the moved arc, plus half a plotter unit an axis', () => {
    const text = 'IN;SP1;PU4000,2000;PDAA2000,2000,180;PU2000,4000;CI800;PU;';
    const turn: Affine<'page', 'page'> = { xx: 1.004, xy: 0.003, yx: -0.003, yy: 0.998, tx: 2, ty: -1 };
    const back = inverseOf(turn);
    const lines = drawnBy(moved(text, by(turn)), 'pen 1')
      .flat()
      .map((p) => apply(back, p));
    const onHalf = lines.filter((p) => Math.abs(Math.hypot(p.x - 50, p.y - 50) - 50) < 0.03);
    const onCircle = lines.filter((p) => Math.abs(Math.hypot(p.x - 50, p.y - 100) - 20) < 0.03);
    expect(onHalf.length + onCircle.length).toBeGreaterThanOrEqual(lines.length);
    expect(onHalf.length).toBeGreaterThan(20);
    expect(onCircle.length).toBeGreaterThan(20);
    // Middles of chords too, but of the one that leads from arc to arc.
    const middles = lines.slice(1).map((p, i) => ({ x: (p.x + lines[i]!.x) / 2, y: (p.y + lines[i]!.y) / 2 }));
    const off = middles.filter(
      (p) =>
        Math.abs(Math.hypot(p.x - 50, p.y - 50) - 50) > 0.025 && Math.abs(Math.hypot(p.x - 50, p.y - 100) - 20) > 0.025,
    );
    expect(off.length).toBeLessThanOrEqual(1);
  });
  it('moved and moved back is itself within the rounding of both writings (property)', () => {
    const whole = fc.integer({ min: 4000, max: 20_000 });
    const small = fc.double({ min: -0.005, max: 0.005, noNaN: true });
    const shift = fc.double({ min: -8, max: 8, noNaN: true });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(whole, whole), { minLength: 2, maxLength: 8 }),
        fc.tuple(small, small, small, small, shift, shift),
        (units, [a, b, c, d, tx, ty]) => {
          const text = `IN;SP1;PU${units[0]!.join()};PD${units.slice(1).flat().join()};PU;`;
          const affine = { xx: 1 + a, xy: b, yx: c, yy: 1 + d, tx, ty };
          const there = moved(text, by(affine));
          const once = readHpgl(there);
          const again = readHpgl(moved(there, by(inverseOf(affine))));
          if (!once.ok || !again.ok) throw new Error('unread');
          for (const [i, [x, y]] of units.entries()) {
            const wanted = apply(affine, { x: x / 40, y: y / 40 });
            const got = once.value[0]![i]!;
            // Half a plotter unit of 0.025 mm on each axis.
            expect(Math.hypot(got.x - wanted.x, got.y - wanted.y)).toBeLessThanOrEqual(0.018);
            const back = again.value[0]![i]!;
            expect(Math.hypot(back.x - x / 40, back.y - y / 40)).toBeLessThanOrEqual(0.037);
          }
        },
      ),
    );
  });
  it('surveys by pen with the box of what each draws', () => {
    const survey = surveyHpgl('IN;SP1;PU40,40;PD80,120;SP3;PU400,400;PD440,400;LBPD9999,9999\u0003PU;');
    expect(survey.ok && survey.value.groups.filter((g) => g.by === 'colour')).toEqual([
      { by: 'colour', name: 'pen 1', label: 'pen 1', count: 1, box: { left: 1, bottom: 1, right: 2, top: 3 } },
      { by: 'colour', name: 'pen 3', label: 'pen 3', count: 1, box: { left: 10, bottom: 10, right: 11, top: 10 } },
    ]);
  });
  it('the way home at the end is not a cut: the tool is parked where it was meant to be', () => {
    expect(moved('IN;SP1;PU40,40;PD80,40;PU0,0;SP0;', by(right(-0.5)))).toBe('IN;SP1;PU20,40;PD60,40;PU0,0;SP0;');
    expect(moved('SP1;PU40,40;PD80,40;PU0,0;PU;PD;PD40,0;', by(right(1)))).toBe(
      'SP1;PU80,40;PD120,40;PU40,0;PU;PD;PD80,0;',
    );
  });
  it('a circle under a bow is lifted straight to its rim', () => {
    const bow = { perMm: 1e-4, along: 'y', pivot: { x: 0, y: 0 } } as const;
    const text = moved('SP1;PU0,20000;CI8000;', { ...by(right(0)), move: { affine: right(0), bow } });
    // The rim lies at 200, 500 mm: 1e-4 x 500^2 / 2 = 12.5 mm to the right of that.
    expect(text).toMatch(/^SP1;PU500,20000;PU8500,20000;PD/);
  });
  it('says when lines come to lie before the origin, and when the outer box moves', () => {
    const done = moveHpgl('SP1;PU0,0;PD400,400;', by(right(-1)));
    expect(done.ok && done.value.remarks.map((r) => r.kind)).toEqual(['negative', 'extent-moves']);
  });
  it.each([
    ['a scale', 'IN;SC0,100,0,100;PD1,1;', 'not-understood at SC at character 4'],
    ['a turned page', 'IN;RO90;PD1,1;', 'not-understood at RO at character 4'],
    ['an encoded polyline', 'PE7<!a;', 'not-understood at PE at character 1'],
    ['a curve', 'BZ1,2,3,4,5,6;', 'not-understood at BZ at character 1'],
    ['half a pair', 'PD1,2,3;', 'not-understood at PD at character 1'],
    ['a word in place of a number', 'PD1,2..3;', 'not-understood at PD at character 1'],
    ['a number beyond sense', 'PD1,99999999999;', 'not-finite at PD at character 1'],
    ['a text', '12 apples', 'not-a-drawing at character 1'],
    ['another pen', 'SP2;PD1,1;', 'nothing-to-move at choice'],
  ])('%s is refused by name', (_name, text, wanted) => {
    const done = moveHpgl(text, by(right(1)));
    expect(done.ok ? 'moved' : `${done.error.kind} at ${done.error.where}`).toBe(wanted);
  });
  it('a scale or window that only resets is carried over', () => {
    expect(moved('IN;SC;IP;SP1;PD40,40;', by(right(1)))).toBe('IN;SC;IP;SP1;PU40,0;PD80,40;');
  });
});
