import fc from 'fast-check';
import sharp from 'sharp';
import { inverseOf, type Affine } from '@/core/geometry/affine';
import type { MoveRequest } from '../cut-file/cut-file';
import { moveSvg, surveySvg } from './move-svg';
import { SVG_KINDS } from './svg-kinds.testing';

const SIDE_PX = 400;
const REDS: MoveRequest = {
  by: 'colour',
  names: ['#ff0000'],
  move: { affine: { xx: 1, xy: 0, yx: 0, yy: 1, tx: 0, ty: 0 } },
};
const by = (affine: Affine<'page', 'page'>): MoveRequest => ({ ...REDS, move: { affine } });

interface Masks {
  readonly red: Uint8Array;
  readonly blue: Uint8Array;
}

/** Drawn by an independent renderer at 10 px a mm. */
async function render(svg: string): Promise<Masks> {
  const { data, info } = await sharp(Buffer.from(svg), { density: 254 })
    .flatten({ background: '#fff' })
    .resize(SIDE_PX, SIDE_PX, { fit: 'fill' })
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const red = new Uint8Array(SIDE_PX * SIDE_PX);
  const blue = new Uint8Array(SIDE_PX * SIDE_PX);
  for (let i = 0; i < red.length; i++) {
    const [r = 0, g = 0, b = 0] = data.subarray(i * info.channels, i * info.channels + 3);
    red[i] = r > 200 && g < 128 && b < 128 ? 1 : 0;
    blue[i] = b > 200 && r < 128 ? 1 : 0;
  }
  return { red, blue };
}

const count = (mask: Uint8Array): number => mask.reduce((sum, v) => sum + v, 0);

/** Pixels of two masks that differ, as a share of the pixels set. */
function difference(a: Uint8Array, b: Uint8Array): number {
  const differing = a.reduce((sum, v, i) => sum + (v === b[i] ? 0 : 1), 0);
  return differing / Math.max(1, count(a));
}

/** A quarter turn counter-clockwise about the middle: a mask's pixels go to pixels. */
function turned(mask: Uint8Array): Uint8Array {
  const out = new Uint8Array(mask.length);
  for (let y = 0; y < SIDE_PX; y++)
    for (let x = 0; x < SIDE_PX; x++) out[(SIDE_PX - 1 - x) * SIDE_PX + y] = mask[y * SIDE_PX + x] ?? 0;
  return out;
}

function shifted(mask: Uint8Array, right: number, up: number): Uint8Array {
  const out = new Uint8Array(mask.length);
  for (let y = 0; y < SIDE_PX - up; y++)
    for (let x = right; x < SIDE_PX; x++) out[y * SIDE_PX + x] = mask[(y + up) * SIDE_PX + x - right] ?? 0;
  return out;
}

/** A quarter turn about the page's middle (20, 20). */
const QUARTER: Affine<'page', 'page'> = { xx: 0, xy: -1, yx: 1, yy: 0, tx: 40, ty: 0 };

describe('cut lines moved in an SVG, as an independent renderer (librsvg) draws it', () => {
  it('there are at least twenty kinds', () => {
    expect(Object.keys(SVG_KINDS).length).toBeGreaterThanOrEqual(20);
  });
  it.each(Object.entries(SVG_KINDS))('%s: turned a quarter, only the cut', async (_name, svg) => {
    const moved = moveSvg(svg, by(QUARTER));
    if (!moved.ok) throw new Error(moved.error.words);
    const [before, after] = await Promise.all([render(svg), render(moved.value.text)]);
    expect(count(before.red)).toBeGreaterThan(300);
    expect(count(before.blue)).toBeGreaterThan(100);
    expect(difference(before.blue, after.blue)).toBe(0);
    expect(difference(before.red, after.red)).toBeGreaterThan(0.5);
    expect(difference(turned(before.red), after.red)).toBeLessThan(0.06);
  });
  it.each(Object.entries(SVG_KINDS))('%s: moved 2 mm right and 3 mm up', async (_name, svg) => {
    const moved = moveSvg(svg, by({ xx: 1, xy: 0, yx: 0, yy: 1, tx: 2, ty: 3 }));
    if (!moved.ok) throw new Error(moved.error.words);
    const [before, after] = await Promise.all([render(svg), render(moved.value.text)]);
    expect(difference(before.blue, after.blue)).toBe(0);
    expect(difference(shifted(before.red, 20, 30), after.red)).toBeLessThan(0.03);
  });
});

const small = fc.double({ min: -0.005, max: 0.005, noNaN: true });
const shift = fc.double({ min: -8, max: 8, noNaN: true });
const near = fc
  .tuple(small, small, small, small, shift, shift)
  .map(([a, b, c, d, tx, ty]): Affine<'page', 'page'> => ({ xx: 1 + a, xy: b, yx: c, yy: 1 + d, tx, ty }));
const boxesOf = (svg: string) => {
  const survey = surveySvg(svg);
  if (!survey.ok) throw new Error(survey.error.words);
  return survey.value.groups.map((g) => g.box);
};

describe('a move of cut lines', () => {
  it.each(Object.entries(SVG_KINDS))('%s: undone is the identity within a nanometre (property)', (_name, svg) => {
    fc.assert(
      fc.property(near, (affine) => {
        const there = moveSvg(svg, by(affine));
        const back = there.ok ? moveSvg(there.value.text, by(inverseOf(affine))) : there;
        if (!back.ok) throw new Error(back.error.words);
        const wanted = boxesOf(svg);
        for (const [i, box] of boxesOf(back.value.text).entries()) {
          for (const side of ['left', 'bottom', 'right', 'top'] as const)
            expect(Math.abs((box?.[side] ?? NaN) - (wanted[i]?.[side] ?? NaN))).toBeLessThan(1e-6);
        }
      }),
      { numRuns: 10 },
    );
  });
  it('leaves every byte but those of the cut: its matrix is the only change', () => {
    const svg = SVG_KINDS['layers of a drawing program'] ?? '';
    const moved = moveSvg(svg, by({ xx: 1, xy: 0, yx: 0, yy: 1, tx: 1, ty: 0 }));
    if (!moved.ok) throw new Error(moved.error.words);
    expect(moved.value.text.replace(/ transform="matrix\(1 0 0 1 1 0\)"/, '')).toBe(svg);
  });
  it('bows a line along the run: on the parabola within 5 um, and nothing else', () => {
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="1000mm" viewBox="0 0 100 1000"><line x1="50" y1="0" x2="50" y2="1000" stroke="red"/></svg>`;
    const bow = { perMm: 4e-6, along: 'y', pivot: { x: 0, y: 0 } } as const;
    const moved = moveSvg(svg, { ...REDS, move: { ...REDS.move, bow } });
    if (!moved.ok) throw new Error(moved.error.words);
    const survey = surveySvg(moved.value.text);
    const box = survey.ok ? survey.value.groups[0]?.box : null;
    // 4e-6 x 1000^2 / 2 = 2 mm at the far end.
    expect(box?.right).toBeCloseTo(52, 6);
    expect(box?.left).toBeCloseTo(50, 6);
    expect(moved.value.text).toMatch(/<path d="M52 0C[^"]*50 1000" stroke="red"\/>/);
    // The same along: 2 mm further on at the far end, which is up the page.
    const feed = { perMm: 0, alongPerMm: 4e-6, along: 'y', pivot: { x: 0, y: 0 } } as const;
    const longer = moveSvg(svg, { ...REDS, move: { ...REDS.move, bow: feed } });
    expect(longer.ok && longer.value.text).toMatch(/<path d="M50 -2C[^"]*50 1000" stroke="red"\/>/);
  });
});

describe('clones whose original is drawn and moved', () => {
  const page = (inside: string): string =>
    `<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="40mm" viewBox="0 0 40 40">${inside}</svg>`;
  const layered = page(
    '<g id="cut"><path id="p" stroke="red" fill="none" d="M4 5h7l2 4z"/></g><g id="print"><use href="#p" transform="translate(20 10) rotate(30)"/></g>',
  );
  const boxOf = (svg: string, layer: string) => {
    const survey = surveySvg(svg);
    return survey.ok ? survey.value.groups.find((g) => g.by === 'layer' && g.name === layer)?.box : undefined;
  };
  it('a clone that is not chosen stays where it is', () => {
    const move = { affine: { xx: 0.99, xy: 0.02, yx: -0.01, yy: 1.02, tx: 1, ty: 2 } };
    const moved = moveSvg(layered, { by: 'layer', names: ['cut'], move });
    if (!moved.ok) throw new Error(moved.error.words);
    const [before, after] = [boxOf(layered, 'print'), boxOf(moved.value.text, 'print')];
    for (const side of ['left', 'bottom', 'right', 'top'] as const)
      expect(after?.[side]).toBeCloseTo(before?.[side] ?? NaN, 6);
    expect(boxOf(moved.value.text, 'cut')?.left).not.toBeCloseTo(boxOf(layered, 'cut')?.left ?? NaN, 1);
  });
  it('a clone alone is moved without its original', () => {
    const move = { affine: { xx: 1, xy: 0, yx: 0, yy: 1, tx: 1, ty: 0 } };
    const moved = moveSvg(layered, { by: 'layer', names: ['print'], move });
    if (!moved.ok) throw new Error(moved.error.words);
    expect(boxOf(moved.value.text, 'print')?.left).toBeCloseTo((boxOf(layered, 'print')?.left ?? NaN) + 1, 6);
    expect(boxOf(moved.value.text, 'cut')).toEqual(boxOf(layered, 'cut'));
  });
  it.each([
    [
      'a clone of a group of which only a part is moved',
      page(
        '<g id="g" xmlns:inkscape="http://www.inkscape.org/namespaces/inkscape"><g inkscape:groupmode="layer" inkscape:label="cut"><path stroke="red" d="M4 5h7"/></g><path stroke="red" d="M4 9h7"/></g><g id="other"><use href="#g" x="9"/></g>',
      ),
    ],
    [
      'a clone of a clone that is moved',
      page(
        '<g id="cut"><path id="p" stroke="red" d="M4 5h7"/><use id="q" href="#p" transform="rotate(20)"/></g><g id="other"><use href="#q" x="9"/></g>',
      ),
    ],
  ])('%s is refused by name: unlink it first', (_name, svg) => {
    const move = { affine: { xx: 1, xy: 0, yx: 0, yy: 1, tx: 1, ty: 0 } };
    const moved = moveSvg(svg, { by: 'layer', names: ['cut'], move });
    expect(moved).toMatchObject({
      ok: false,
      error: { kind: 'mixed-use', words: expect.stringMatching(/unlink/) as string },
    });
  });
  it('a clone of a line that is bent is refused', () => {
    const bow = { perMm: 4e-6, along: 'y', pivot: { x: 0, y: 0 } } as const;
    const svg = page('<path id="p" stroke="red" d="M4 5v30"/><use href="#p" x="9"/>');
    const moved = moveSvg(svg, { ...REDS, move: { ...REDS.move, bow } });
    expect(moved).toMatchObject({ ok: false });
  });
});

describe('what an SVG is refused or remarked for', () => {
  const page = (inside: string): string =>
    `<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="40mm" viewBox="0 0 40 40">${inside}</svg>`;
  const cut = (attributes: string): string => page(`<path id="k" stroke="red" ${attributes} d="M1 1h5"/>`);
  const kindOf = (svg: string): string => {
    const moved = moveSvg(svg, by({ xx: 1, xy: 0, yx: 0, yy: 1, tx: 1, ty: 0 }));
    return moved.ok ? 'moved' : `${moved.error.kind} at ${moved.error.where}`;
  };
  it.each([
    ['a transform in a unit', cut('transform="translate(10px)"'), 'not-understood at line 1, <path id="k">'],
    ['a transform not closed', cut('transform="scale(2"'), 'not-understood at line 1, <path id="k">'],
    ['a transform in a style', cut('style="transform:scale(2)"'), 'not-understood at line 1, <path id="k">'],
    ['no size at all', '<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0h1"/></svg>', 'not-understood at root'],
    ['not XML', 'hello', 'not-a-drawing at line 1'],
    ['another XML', '<html></html>', 'not-a-drawing at root'],
    [
      'an outside entity',
      '<!DOCTYPE svg [<!ENTITY x SYSTEM "file:///etc/passwd">]><svg>&x;</svg>',
      'not-understood at document type',
    ],
    ['nothing red', page('<path stroke="blue" d="M1 1h5"/>'), 'nothing-to-move at choice'],
    [
      'a use of both',
      page(
        '<defs><g id="g"><path stroke="red" d="M1 1h5"/><path stroke="blue" d="M1 1h5"/></g></defs><use href="#g"/>',
      ),
      'mixed-use at line 1, <use>',
    ],
  ])('%s', (_name, svg, wanted) => {
    expect(kindOf(svg)).toBe(wanted);
  });
  it('refuses groups too deep and entities that grow, at once', () => {
    expect(kindOf(page('<g>'.repeat(100) + '</g>'.repeat(100)))).toBe('too-large at nesting');
    const lol = '<!DOCTYPE svg [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]><svg>&b;</svg>';
    expect(kindOf(lol)).toBe('not-understood at document type');
  });
  it('an outside entity is refused, and nothing is fetched', () => {
    const asks = jest.spyOn(globalThis, 'fetch');
    const svg = '<!DOCTYPE svg [<!ENTITY x SYSTEM "file:///etc/hostname">]><svg width="1mm" height="1mm">&x;</svg>';
    expect(kindOf(svg)).toBe('not-understood at document type');
    expect(asks).not.toHaveBeenCalled();
    asks.mockRestore();
  });
  it('a use that cannot be followed stays and is said; one that shows nothing is nothing', () => {
    const moved = (use: string) =>
      moveSvg(page(`<path stroke="red" d="M1 1h5"/>${use}`), by({ xx: 1, xy: 0, yx: 0, yy: 1, tx: 1, ty: 0 }));
    const kinds = (use: string) => {
      const done = moved(use);
      return done.ok && done.value.remarks.map((r) => r.kind).filter((k) => k === 'not-moved');
    };
    expect(kinds('<use href="other.svg#k"/>')).toEqual(['not-moved']);
    expect(kinds('<use id="u" href="#u"/>')).toEqual(['not-moved']);
    expect(kinds('<use href="#nowhere"/>')).toEqual([]);
  });
  it('remarks text, clips, plain sizes and an outer box that moves', () => {
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="100" height="100"><clipPath id="c"><path d="M0 0h50v50z"/></clipPath><text stroke="red">cut me</text><path stroke="red" clip-path="url(#c)" d="M1 1h5"/></svg>`;
    const moved = moveSvg(svg, by({ xx: 1, xy: 0, yx: 0, yy: 1, tx: 1, ty: 0 }));
    expect(moved.ok && moved.value.remarks.map((r) => r.kind)).toEqual([
      'size-not-stated',
      'text-stays',
      'clipped',
      'extent-moves',
    ]);
  });
});
