import { moveCutFile, surveyCutFile } from './move-cut-file';
import type { MoveRequest } from './cut-file';

const still: MoveRequest = {
  by: 'colour',
  names: ['#ff0000', 'pen 1', 'colour 1'],
  move: { affine: { xx: 1, xy: 0, yx: 0, yy: 1, tx: 0, ty: 0 } },
};
const moved: MoveRequest = { ...still, move: { affine: { xx: 1, xy: 0, yx: 0, yy: 1, tx: 1, ty: 2 } } };
const utf8 = (text: string): Uint8Array => new TextEncoder().encode(text);

const SVG =
  '\ufeff<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="40mm" viewBox="0 0 40 40"><title>Ufer \u2013 \u00c4sche \u{1f41f}</title><g id="Messer \u00fc"><path stroke="red" d="M1 1h5"/></g></svg>';

describe('a cut file, whatever its format', () => {
  it('keeps every byte that is not cut: names, accents, byte order mark', () => {
    const done = moveCutFile(utf8(SVG), moved);
    if (!done.ok) throw new Error(done.error.words);
    expect(new TextDecoder('utf-8', { ignoreBOM: true }).decode(done.value.bytes)).toBe(
      SVG.replace('<path', '<path transform="matrix(1 0 0 1 1 -2)"'),
    );
  });
  it('names layers as their writer meant them', () => {
    const survey = surveyCutFile(utf8(SVG));
    expect(survey.ok && survey.value.groups.map((g) => g.label)).toEqual(['#ff0000', 'Messer \u00fc']);
  });
  it.each([
    ['SVG', SVG],
    ['HPGL', 'IN;SP1;PU40,40;PD80,40;'],
    ['DXF', '0\nSECTION\n2\nENTITIES\n0\nLINE\n8\n0\n62\n1\n10\n0.10\n20\n0\n11\n5\n21\n5\n0\nENDSEC\n0\nEOF\n'],
  ])('%s: a move by nothing gives the same bytes', (_name, text) => {
    const done = moveCutFile(utf8(text), still);
    expect(done.ok && Buffer.from(done.value.bytes).equals(Buffer.from(utf8(text)))).toBe(true);
    expect(done.ok && done.value.movedCount).toBe(1);
  });
  it.each([
    ['nothing', new Uint8Array(), 'The file is empty.'],
    [
      'a PNG',
      Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a),
      'The file is neither SVG nor DXF nor HPGL.',
    ],
    ['UTF-16', Uint8Array.of(0xff, 0xfe, 0x3c, 0), 'The file is in UTF-16: save it as UTF-8.'],
    ['64 MB and one byte', new Uint8Array(64 * 1024 * 1024 + 1), 'More than 64 MB.'],
  ])('%s is refused in words', (_name, bytes, words) => {
    expect(moveCutFile(bytes, moved)).toMatchObject({ ok: false, error: { words } });
  });
});
