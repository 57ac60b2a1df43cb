import { spawnSync } from 'node:child_process';
import { inverseOf, type Affine } from '@/core/geometry/affine';
import type { PlaneMove } from '@/core/geometry/plane-move';
import type { MoveRequest } from '../cut-file/cut-file';
import { moveDxf, surveyDxf } from './move-dxf';

/** Debian's own python3: another one may stand before it on the path. */
function python(program: string, input: object): unknown {
  const done = spawnSync('/usr/bin/python3', ['-c', program], {
    input: JSON.stringify(input),
    encoding: 'utf8',
    maxBuffer: 1e8,
  });
  if (done.status !== 0) throw new Error(done.stderr);
  return JSON.parse(done.stdout);
}

/** Every kind of line in one drawing, on the layer Knife; art on the layer Picture. Written by ezdxf. */
const MAKE = `
import ezdxf, io, json, sys
ask = json.load(sys.stdin)
doc = ezdxf.new(ask['version'], setup=False)
doc.header['$INSUNITS'] = ask['unit']
doc.layers.new('Knife', dxfattribs={'color': 1})
doc.layers.new('Picture', dxfattribs={'color': 5})
m = doc.modelspace()
k = {'layer': 'Knife'}
m.add_line((0, 0), (100, 40), dxfattribs=k)
m.add_circle((60, 60), 50, dxfattribs=k)
m.add_arc((30, 90), 20, 30, 200, dxfattribs=k)
m.add_arc((30, 90), 12, 300, 40, dxfattribs={**k, 'extrusion': (0, 0, -1)})
m.add_polyline2d([(0, 0), (10, 0), (10, 10)], dxfattribs={**k, 'closed': True})
m.add_polyline2d([(50, 5, 0.4), (80, 5, -0.2), (80, 30, 0)], format='xyb', dxfattribs=k)
if ask['version'] != 'R12':
    m.add_lwpolyline([(5, 5, 0.5), (25, 5, 0), (25, 25, -1), (5, 25, 0.3)], format='xyb', close=True, dxfattribs=k)
    m.add_lwpolyline([(5, 5, 0.5), (25, 5, 0), (25, 25, -1)], format='xyb', dxfattribs={**k, 'extrusion': (0, 0, -1)})
    m.add_ellipse((80, 20), (30, 10), 0.4, dxfattribs=k)
    m.add_ellipse((80, 20), (10, -5), 0.7, 1.0, 4.0, dxfattribs=k)
if ask['version'] != 'R12' and ask['spline']:
    s = m.add_spline(dxfattribs=k)
    s.control_points = [(0, 0, 0), (20, 40, 0), (60, -20, 0), (90, 30, 0)]
    s.dxf.degree = 3
    s.knots = [0, 0, 0, 0, 1, 1, 1, 1]
m.add_text('Otter Pool', dxfattribs={'layer': 'Knife'})
m.add_circle((10, 10), 3, dxfattribs={'layer': 'Picture'})
m.add_line((1, 1), (2, 2), dxfattribs={'layer': 'Picture'})
out = io.StringIO(); doc.write(out)
print(json.dumps(out.getvalue()))
`;

/**
 * Compares two drawings entity by entity as ezdxf reads them: how far points of the first, moved, lie off the second's
 * line. What the second drawing's audit finds is counted.
 */
const COMPARE = `
import ezdxf, io, json, math, sys
ask = json.load(sys.stdin)
def read(text): return ezdxf.read(io.StringIO(text))
def runs(e, step):
    kind = e.dxftype()
    if kind == 'LINE': return [[(e.dxf.start.x, e.dxf.start.y), (e.dxf.end.x, e.dxf.end.y)]]
    if kind in ('LWPOLYLINE', 'POLYLINE'): return [r for v in e.virtual_entities() for r in runs(v, step)]
    return [[(v.x, v.y) for v in e.flattening(step)]]
a, b = read(ask['before']), read(ask['after'])
xx, xy, yx, yy, tx, ty = ask['map']
bow, along, py = ask['bow'], ask['alongBow'], ask['pivotY']
def go(p):
    x, y = p[0] + bow * (p[1] - py) ** 2 / 2, p[1] + along * (p[1] - py) ** 2 / 2
    return (xx * x + xy * y + tx, yx * x + yy * y + ty)
def off(p, line):
    best = 1e9
    for run in line:
        for (x0, y0), (x1, y1) in zip(run, run[1:]):
            dx, dy = x1 - x0, y1 - y0
            n = dx * dx + dy * dy
            t = max(0, min(1, ((p[0] - x0) * dx + (p[1] - y0) * dy) / n)) if n else 0
            best = min(best, math.hypot(p[0] - x0 - t * dx, p[1] - y0 - t * dy))
    return best
worst = {}
ea, eb = list(a.modelspace()), list(b.modelspace())
for x, y in zip(ea, eb):
    if x.dxftype() == 'TEXT': continue
    line = runs(y, 5e-5)
    pts = [p for r in runs(x, 0.01) for p in r]
    move = go if x.dxf.layer == 'Knife' else (lambda p: p)
    gap = max(off(move(p), line) for p in pts[:: max(1, len(pts) // 15)] + [pts[-1]])
    name = x.dxftype() + ' ' + x.dxf.layer
    worst[name] = max(worst.get(name, 0), gap)
audit = b.audit()
print(json.dumps({'worst': worst, 'counts': [len(ea), len(eb)], 'types': sorted({e.dxftype() for e in eb}), 'errors': len(audit.errors), 'fixes': len(audit.fixes)}))
`;

interface Comparison {
  readonly worst: Readonly<Record<string, number>>;
  readonly counts: readonly [number, number];
  readonly types: readonly string[];
  readonly errors: number;
  readonly fixes: number;
}

const make = (version: string, unit = 4, spline = true): string => python(MAKE, { version, unit, spline }) as string;

function compare(before: string, after: string, move: PlaneMove): Comparison {
  const { xx, xy, yx, yy, tx, ty } = move.affine;
  return python(COMPARE, {
    before,
    after,
    map: [xx, xy, yx, yy, tx, ty],
    bow: move.bow?.perMm ?? 0,
    alongBow: move.bow?.alongPerMm ?? 0,
    pivotY: move.bow?.pivot.y ?? 0,
  }) as Comparison;
}

const knife = (move: PlaneMove): MoveRequest => ({ by: 'layer', names: ['Knife'], move });
const GENERAL: Affine<'page', 'page'> = { xx: 1.004, xy: -0.003, yx: 0.002, yy: 0.997, tx: 3.2, ty: -1.7 };
const TURN: Affine<'page', 'page'> = {
  xx: Math.cos(0.01),
  xy: -Math.sin(0.01),
  yx: Math.sin(0.01),
  yy: Math.cos(0.01),
  tx: 2,
  ty: 1,
};

function moved(text: string, request: MoveRequest): string {
  const done = moveDxf(text, request);
  if (!done.ok) throw new Error(`${done.error.where}: ${done.error.words}`);
  return done.value.text;
}

describe('cut lines moved in a DXF, read back by ezdxf', () => {
  it.each(['R12', 'R2000', 'R2004', 'R2007'])('%s: every kind of line within 1 um of where it should be', (version) => {
    const before = make(version);
    const after = moved(before, knife({ affine: GENERAL }));
    const got = compare(before, after, { affine: GENERAL });
    expect(got.counts[1]).toBe(got.counts[0]);
    for (const gap of Object.values(got.worst)) expect(gap).toBeLessThan(0.001);
    expect(Object.keys(got.worst).length).toBeGreaterThan(version === 'R12' ? 5 : 8);
    expect(got.errors).toBe(0);
  });
  it('a turn keeps circles and arcs what they are', () => {
    const before = make('R2000');
    const got = compare(before, moved(before, knife({ affine: TURN })), { affine: TURN });
    for (const gap of Object.values(got.worst)) expect(gap).toBeLessThan(0.001);
    expect(got.types).toEqual(expect.arrayContaining(['ARC', 'CIRCLE', 'SPLINE']));
  });
  it.each(['R12', 'R2000'])('%s: a bow bends lines and arcs within 5 um', (version) => {
    const before = make(version, 4, false);
    const bow = { perMm: 2e-5, alongPerMm: 1e-5, along: 'y', pivot: { x: 0, y: 10 } } as const;
    const move = { affine: GENERAL, bow };
    const got = compare(before, moved(before, knife(move)), move);
    for (const gap of Object.values(got.worst)) expect(gap).toBeLessThan(0.006);
  });
  it('moved and moved back is itself within 1 um', () => {
    const before = make('R2000');
    const there = moved(before, knife({ affine: GENERAL }));
    const again = moved(there, knife({ affine: inverseOf(GENERAL) }));
    const same = { xx: 1, xy: 0, yx: 0, yy: 1, tx: 0, ty: 0 } as const;
    for (const gap of Object.values(compare(before, again, { affine: same }).worst)) expect(gap).toBeLessThan(0.001);
  });
  it('a drawing in inches is moved by mm', () => {
    const before = make('R2000', 1);
    const after = moved(before, knife({ affine: { ...TURN, xx: 1, xy: 0, yx: 0, yy: 1, tx: 25.4, ty: 0 } }));
    const got = compare(before, after, { affine: { xx: 1, xy: 0, yx: 0, yy: 1, tx: 1, ty: 0 } });
    for (const gap of Object.values(got.worst)) expect(gap).toBeLessThan(1e-4);
  });
  it('art stays byte for byte, and what is no line is listed', () => {
    const before = make('R2000');
    const done = moveDxf(before, knife({ affine: GENERAL }));
    if (!done.ok) throw new Error(done.error.words);
    const art = before.slice(before.indexOf('TEXT', before.indexOf('ENTITIES')));
    expect(done.value.text.endsWith(art)).toBe(true);
    expect(done.value.remarks).toContainEqual({
      kind: 'not-moved',
      words: 'Among the chosen lines these are not lines to cut, and stay as they are: 1 TEXT.',
    });
  });
});

const group = (...pairs: readonly (string | number)[]): string =>
  pairs
    .map(
      (value) => `${value}
`,
    )
    .join('');
const drawing = (entities: string, blocks = ''): string =>
  group(0, 'SECTION', 2, 'BLOCKS') +
  blocks +
  group(0, 'ENDSEC', 0, 'SECTION', 2, 'ENTITIES') +
  entities +
  group(0, 'ENDSEC', 0, 'EOF');

describe('what a DXF is refused or remarked for', () => {
  const outcome = (text: string, names = ['Knife']): string => {
    const done = moveDxf(text, { by: 'layer', names, move: { affine: TURN } });
    return done.ok
      ? `moved, ${done.value.remarks.map((r) => r.kind).join()}`
      : `${done.error.kind} at ${done.error.where}`;
  };
  const line = group(0, 'LINE', 8, 'Knife', 10, 1, 20, 2, 11, 3, 21, 4);
  it.each([
    ['a drawing without a unit', drawing(line), 'moved, unit-not-stated,extent-moves'],
    ['a text file', 'hello\nworld\n', 'not-a-drawing at line 1'],
    ['pairs without a section', group(0, 'LINE'), 'not-a-drawing at file'],
    ['a binary DXF', 'AutoCAD Binary DXF\r\n', 'not-a-drawing at file'],
    ['another layer', drawing(group(0, 'LINE', 8, 'Ink', 10, 1, 20, 2, 11, 3, 21, 4)), 'nothing-to-move at choice'],
    [
      'a coordinate that is no number',
      drawing(group(0, 'LINE', 8, 'Knife', 10, 'x', 20, 2)),
      'not-finite at line 16, LINE',
    ],
    [
      'a coordinate without end',
      drawing(group(0, 'LINE', 8, 'Knife', 10, '1e400', 20, 2)),
      'not-finite at line 16, LINE',
    ],
    [
      'a tilted entity',
      drawing(group(0, 'CIRCLE', 8, 'Knife', 10, 1, 20, 2, 40, 3, 210, 1, 220, 0, 230, 0)),
      'not-understood at line 12, CIRCLE',
    ],
    [
      'a block that holds lines to be moved',
      drawing(
        group(0, 'INSERT', 8, 'Ink', 2, 'B', 10, 0, 20, 0) + line,
        group(0, 'BLOCK', 2, 'B') + line + group(0, 'ENDBLK', 8, '0'),
      ),
      'mixed-use at line 32, INSERT',
    ],
    [
      'a block that shows itself',
      drawing(
        group(0, 'INSERT', 8, 'Ink', 2, 'B', 10, 0, 20, 0) + line,
        group(0, 'BLOCK', 2, 'B', 0, 'INSERT', 8, 'Ink', 2, 'B', 0, 'ENDBLK', 8, '0'),
      ),
      'moved, unit-not-stated,extent-moves',
    ],
  ])('%s', (_name, text, wanted) => {
    expect(outcome(text)).toBe(wanted);
  });
  it('vertices of a polyline in paper space are none of the drawing\u2019s', () => {
    const corner = (x: number): string => group(0, 'VERTEX', 8, 'Knife', 10, x, 20, 0);
    const line = (paper: boolean): string =>
      group(0, 'POLYLINE', 8, 'Knife', 66, 1, 70, 0, ...(paper ? [67, 1] : [])) +
      corner(1) +
      corner(9) +
      group(0, 'SEQEND', 8, 'Knife');
    const survey = surveyDxf(drawing(line(false) + line(true).replaceAll('\r\n9\r\n', '\r\n99\r\n')));
    expect(survey.ok && survey.value.groups.map((g) => [g.count, g.box?.right])).toEqual([
      [1, 9],
      [1, 9],
    ]);
  });
  it('surveys by layer and by colour, layer colours followed', () => {
    const survey = surveyDxf(make('R2000'));
    expect(survey.ok && survey.value.groups.map((g) => `${g.by} ${g.name}`)).toEqual([
      'colour colour 1',
      'colour colour 5',
      'layer Knife',
      'layer Picture',
    ]);
  });
});
