import { seededRng, type Rng } from '@/core/math/random';
import { SVG_KINDS } from '../svg/svg-kinds.testing';
import { BEND, LONGEST_MS, MOVE } from './ask-file.testing';
import type { MoveRequest } from './cut-file';
import { moveCutFile, surveyCutFile } from './move-cut-file';
import { timedAtBest } from './work-time.testing';

/**
 * Run as a program of its own with a bounded heap: looks at and moves many spoiled files of one format, and prints as JSON
 * what came of them, the longest that one took, and the most memory the whole program ever had.
 */
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

const SOURCES: Readonly<Record<string, readonly string[]>> = { SVG: Object.values(SVG_KINDS), DXF, HPGL };

/** What came of one file. */
function outcomeOf(bytes: Uint8Array, asked: MoveRequest): string {
  const survey = surveyCutFile(bytes);
  const moved = moveCutFile(bytes, asked);
  if (!survey.ok && moved.ok) return 'moved what could not be surveyed';
  if (!moved.ok && moved.error.words.length < 10) return 'refused without words';
  return moved.ok ? 'moved' : moved.error.kind;
}

const [, , format = '', count = ''] = process.argv;
const rng = seededRng(format.length * 7919);
const outcomes: Record<string, number> = {};
let longestMs = 0;
for (let i = 0; i < Number(count); i++) {
  const bytes = Uint8Array.from(Buffer.from(spoiled(SOURCES[format] ?? [], rng), 'latin1'));
  const { value: outcome, busyMs } = timedAtBest(() => outcomeOf(bytes, i % 2 === 0 ? MOVE : BEND), LONGEST_MS);
  longestMs = Math.max(longestMs, busyMs);
  outcomes[outcome] = (outcomes[outcome] ?? 0) + 1;
}
console.log(JSON.stringify({ outcomes, longestMs, mostMb: process.resourceUsage().maxRSS / 1024 }));
