import { seededRng, type Rng } from '@/core/math/random';
import { SVG_KINDS } from '../svg/svg-kinds.testing';
import type { MoveRequest } from './cut-file';
import { moveCutFile, surveyCutFile } from './move-cut-file';

const isLong = process.env.JEST_LONG === '1';
const CASES = isLong ? 10_000 : 600;
const LONGEST_MS = 5000;
const MOST_BYTES = 700e6;

const request: MoveRequest = {
  by: 'colour',
  names: ['#ff0000', 'pen 1', 'colour 1', 'colour 7'],
  move: { affine: { xx: 1.001, xy: 0.002, yx: -0.001, yy: 0.999, tx: 1, ty: 2 } },
};
const bowed: MoveRequest = {
  ...request,
  move: { ...request.move, bow: { perMm: 1e-5, along: 'y', pivot: { x: 0, y: 0 } } },
};

const HPGL = [
  'IN;VS20;SP1;PU40,40;PD80,40,80,80,40,80,40,40;PU;SP2;PU400,400;PD440,400;PU0,0;SP0;',
  '\u001b%0BIN;SP1;PA40,40;PR;PD40,0,0,40;AA100,100,90;CI50;PU;SP2;LBhello\u0003PD40,0;AR10,10,-45,5;SC;IP;',
];
const DXF_WHOLE =
  '0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n4\n0\nENDSEC\n0\nSECTION\n2\nTABLES\n0\nLAYER\n2\nK\n62\n1\n0\nENDSEC\n0\nSECTION\n2\nBLOCKS\n0\nBLOCK\n2\nB\n0\nLINE\n8\n0\n62\n5\n10\n1\n20\n1\n11\n2\n21\n2\n0\nENDBLK\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n0\nLINE\n8\nK\n10\n0\n20\n0\n11\n5\n21\n5\n0\nCIRCLE\n8\nK\n10\n9\n20\n9\n40\n4\n0\nARC\n8\nK\n10\n9\n20\n9\n40\n4\n50\n10\n51\n200\n0\nPOLYLINE\n8\nK\n66\n1\n70\n1\n0\nVERTEX\n8\nK\n10\n1\n20\n1\n42\n0.5\n0\nVERTEX\n8\nK\n10\n9\n20\n1\n0\nSEQEND\n8\nK\n0\nLWPOLYLINE\n8\nK\n90\n2\n70\n0\n10\n1\n20\n2\n42\n-1\n10\n5\n20\n6\n0\nELLIPSE\n8\nK\n10\n1\n20\n2\n11\n5\n21\n0\n40\n0.5\n41\n0\n42\n6.28\n0\nSPLINE\n8\nK\n71\n3\n10\n1\n20\n2\n10\n3\n20\n4\n0\nINSERT\n8\nP\n2\nB\n10\n0\n20\n0\n0\nTEXT\n8\nK\n10\n1\n20\n1\n1\nhello\n0\nENDSEC\n0\nEOF\n';
const DXF = [DXF_WHOLE, DXF_WHOLE.replace('0\nSPLINE', '0\nPOINT')];

/** Words that break careless readers. */
const NASTY = [
  '',
  '1e999',
  '-',
  'NaN',
  '"',
  "'",
  '<',
  '>',
  '&',
  ';',
  ',',
  '(',
  ')',
  '\u0000',
  '99999999999999999999',
  '0',
  '-1',
  'transform="scale(0)"',
  '<g>',
  '</g>',
  '<use href="#p"/>',
  'PR;',
  'PE',
  '\n0\n',
  '\n',
  'Z',
  'M',
  'a1,1 0 0 1',
  'url(#p)',
  '%',
  'inherit',
];

type Pick = (n: number) => number;

/** One word changed for another: the shape of the file stays, its sense may not. */
function wordSpoiled(text: string, pick: Pick): string {
  const words = text.split(/([\s,;"]+)/);
  words[2 * pick(Math.ceil(words.length / 2))] = NASTY[pick(NASTY.length)]!;
  return words.join('');
}

/** Bytes and stretches lost, doubled, or taken from another file. */
function stretchSpoiled(text: string, other: string, pick: Pick): string {
  const at = pick(text.length + 1);
  const end = Math.min(text.length, at + pick(pick(10) === 0 ? 400 : 12));
  const from = pick(other.length);
  const words = [
    '',
    String.fromCharCode(pick(256)),
    NASTY[pick(NASTY.length)]!,
    other.slice(from, from + pick(80)),
    text.slice(at, end).repeat(1 + pick(4)),
  ][pick(5)]!;
  return text.slice(0, at) + words + text.slice(end);
}

/** A few changes of a valid file. */
function spoiled(sources: readonly string[], rng: Rng): string {
  const pick: Pick = (n) => Math.floor(rng() * n);
  let text = sources[pick(sources.length)]!;
  for (let left = 1 + pick(4); left > 0; left--)
    text = pick(3) > 0 ? wordSpoiled(text, pick) : stretchSpoiled(text, sources[pick(sources.length)]!, pick);
  return text;
}

describe('files that are no files: an answer, never a crash, a hang or a flood', () => {
  it.each([
    ['SVG', Object.values(SVG_KINDS)],
    ['DXF', DXF],
    ['HPGL', HPGL],
  ])(`%s, ${CASES} spoiled files`, (name, sources) => {
    const rng = seededRng(name.length * 7919);
    const outcomes = new Map<string, number>();
    let longestMs = 0;
    for (let i = 0; i < CASES; i++) {
      const bytes = Uint8Array.from(Buffer.from(spoiled(sources, rng), 'latin1'));
      const from = performance.now();
      const survey = surveyCutFile(bytes);
      const moved = moveCutFile(bytes, i % 2 === 0 ? request : bowed);
      longestMs = Math.max(longestMs, performance.now() - from);
      const outcome = moved.ok ? 'moved' : moved.error.kind;
      if (!survey.ok && moved.ok) throw new Error('moved what could not be surveyed');
      if (!moved.ok && moved.error.words.length < 10) throw new Error('refused without words');
      outcomes.set(outcome, (outcomes.get(outcome) ?? 0) + 1);
    }
    expect(longestMs).toBeLessThan(LONGEST_MS);
    expect(process.memoryUsage().rss).toBeLessThan(MOST_BYTES);
    // The mix must reach both the writers and the refusals, else it proves nothing.
    expect(outcomes.get('moved') ?? 0).toBeGreaterThan(CASES / 20);
    expect(CASES - (outcomes.get('moved') ?? 0)).toBeGreaterThan(CASES / 20);
  });

  const svg = (inside: string): string =>
    `<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="40mm" viewBox="0 0 40 40">${inside}</svg>`;
  const chain = (n: number): string =>
    Array.from({ length: n }, (_, i) => `<g id="g${i + 1}">${`<use href="#g${i}"/>`.repeat(10)}</g>`).join('');
  it.each([
    [
      'uses of uses, ten to the twelfth',
      svg(`<defs><path id="g0" stroke="red" d="M0 0h1"/>${chain(12)}</defs><use href="#g12"/>`),
    ],
    ['a use of itself', svg('<use id="u" stroke="red" href="#u"/>')],
    ['a path of a million letters', svg(`<path stroke="red" d="${'M'.repeat(1e6)}"/>`)],
    ['a transform of a megabyte', svg(`<path stroke="red" d="M0 0h1" transform="${'scale(1) '.repeat(1e5)}"/>`)],
    ['two hundred thousand groups side by side', svg('<g/>'.repeat(2e5))],
    ['fifty thousand lines to move', svg('<path stroke="red" d="M0 0h1"/>\n'.repeat(5e4))],
    ['a style sheet of a megabyte', svg(`<style>${'.a{stroke:red}'.repeat(8e4)}</style>`)],
    ['an instruction of a megabyte', `PD${'1,'.repeat(5e5)}`],
    ['an instruction of two million numbers', `PD${'7,'.repeat(2e6)}`],
    ['a label without end', `LB${'x'.repeat(1e6)}`],
    ['a circle of a thousand kilometres', 'SP1;CI99999999999;'],
    ['a DXF of a million empty lines', '\n'.repeat(1e6)],
    [
      'an arc of no size',
      '0\nSECTION\n2\nENTITIES\n0\nARC\n62\n1\n8\n0\n10\n0\n20\n0\n40\n0\n50\n0\n51\n1e8\n0\nENDSEC\n',
    ],
  ])('%s is answered within 5 s', (_name, text) => {
    const bytes = Uint8Array.from(Buffer.from(text, 'latin1'));
    for (const answer of [
      () => surveyCutFile(bytes),
      () => moveCutFile(bytes, request),
      () => moveCutFile(bytes, bowed),
    ]) {
      const from = performance.now();
      answer();
      expect(performance.now() - from).toBeLessThan(LONGEST_MS);
    }
  });
});
