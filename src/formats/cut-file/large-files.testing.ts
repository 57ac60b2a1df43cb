import { answersTo, PATIENCE_MS } from './ask-file.testing';

/**
 * Run as a program of its own with a bounded heap: reads and moves one large file three ways, and prints as JSON how long
 * each took, what came of it, and the most memory the whole program ever had.
 */
const POINTS = 1_000_000;
const many = (n: number, words: (i: number) => string, between = ''): string => {
  const parts: string[] = [];
  let part: string[] = [];
  for (let i = 0; i < n; i++) {
    part.push(words(i));
    if (part.length < 10_000) continue;
    parts.push(part.join(between));
    part = [];
  }
  if (part.length > 0) parts.push(part.join(between));
  return parts.join(between);
};

/** A zigzag within 300 mm. */
const x = (i: number): string => ((i % 3000) / 10).toFixed(3);
const y = (i: number): string => (Math.floor(i / 3000) / 2 + (i % 2) / 10).toFixed(3);
const plotterX = (i: number): number => 4 * (i % 3000) + 3;
const plotterY = (i: number): number => 20 * Math.floor(i / 3000) + 7 * (i % 2);

const svg = (inside: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="300mm" height="300mm" viewBox="0 0 300 300">${inside}</svg>`;
const dxf = (inside: string): string =>
  `0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n4\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n${inside}0\nENDSEC\n0\nEOF\n`;

const FILES: Readonly<Record<string, () => string>> = {
  'SVG path of a million points': () =>
    svg(`<path stroke="#f00" d="M0 0L${many(POINTS, (i) => `${x(i)} ${y(i)}`, ' ')}"/>`),
  'SVG polyline of a million points': () =>
    svg(`<polyline stroke="#f00" points="${many(POINTS, (i) => `${x(i)},${y(i)}`, ' ')}"/>`),
  'SVG of 190,000 paths': () => svg(many(190_000, (i) => `<path stroke="#f00" d="M${x(i)} ${y(i)}l1 1"/>\n`)),
  'SVG of a million groups': () => svg('<g/>'.repeat(POINTS)),
  'SVG of 64 MB of paths': () => svg(`<path stroke="#f00" d="M${'0 0 '.repeat(15_000_000)}"/>`),
  'HPGL instruction of a million points': () =>
    `IN;SP1;PU0,0;PD${many(POINTS, (i) => `${plotterX(i)},${plotterY(i)}`, ',')};PU0,0;`,
  'HPGL of a million instructions': () =>
    `IN;SP1;PU0,0;${many(POINTS, (i) => `PD${plotterX(i)},${plotterY(i)};`)}PU0,0;`,
  'HPGL of 64 MB of numbers': () => `IN;SP1;PD${'7,7,'.repeat(15_000_000)}7,7;`,
  'HPGL of 64 MB of instructions': () => `IN;SP1;${'PD7,7;'.repeat(10_000_000)}`,
  'DXF of 250,000 lines': () =>
    dxf(
      many(
        250_000,
        (i) => `0\nLINE\n8\n0\n62\n1\n10\n${x(i)}\n20\n${y(i)}\n30\n0.0\n11\n${y(i)}\n21\n${x(i)}\n31\n0.0\n`,
      ),
    ),
  'DXF polyline of a million points': () =>
    dxf(`0\nLWPOLYLINE\n8\n0\n62\n1\n90\n${POINTS}\n70\n0\n${many(POINTS, (i) => `10\n${x(i)}\n20\n${y(i)}\n`)}`),
  'DXF old polyline of 500,000 points': () =>
    dxf(
      `0\nPOLYLINE\n8\n0\n62\n1\n66\n1\n${many(500_000, (i) => `0\nVERTEX\n8\n0\n10\n${x(i)}\n20\n${y(i)}\n`)}0\nSEQEND\n`,
    ),
  'DXF of 64 MB of groups': () => dxf('1\n\n'.repeat(20_000_000)),
};

const [, , name] = process.argv;
if (name === undefined) console.log(JSON.stringify(Object.keys(FILES)));
else
  console.log(
    JSON.stringify({
      answers: answersTo((FILES[name] as () => string)(), PATIENCE_MS),
      mostMb: Math.round(process.resourceUsage().maxRSS / 1024),
    }),
  );
