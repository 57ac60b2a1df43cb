import { answersTo } from './ask-file.testing';

/**
 * Run as a program of its own with a bounded heap: looks at, moves and bends every one of these small or middling files that
 * are made to keep a reader busy, and prints as JSON what came of them and the most memory the whole program ever had.
 */
const svg = (inside: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="40mm" viewBox="0 0 40 40">${inside}</svg>`;
const chain = (n: number): string =>
  Array.from({ length: n }, (_, i) => `<g id="g${i + 1}">${`<use href="#g${i}"/>`.repeat(10)}</g>`).join('');

function blocksWithinBlocks(): string {
  const block = (name: string, inside: string): string =>
    `0\nBLOCK\n2\n${name}\n0\nLINE\n8\n0\n62\n5\n10\n1\n20\n1\n11\n2\n21\n2\n${inside}0\nENDBLK\n`;
  const insert = (name: string): string => `0\nINSERT\n8\nK\n2\n${name}\n10\n0\n20\n0\n`;
  const blocks = Array.from({ length: 1000 }, (_, i) =>
    block(`B${i}`, insert(`B${i + 1}`).repeat(20) + insert(`B${i}`)),
  );
  return `0\nSECTION\n2\nBLOCKS\n${blocks.join('')}0\nENDSEC\n0\nSECTION\n2\nENTITIES\n${insert('B0').repeat(1000)}0\nENDSEC\n0\nEOF\n`;
}

const FILES: Readonly<Record<string, () => string>> = {
  'uses of uses, ten to the twelfth': () =>
    svg(`<defs><path id="g0" stroke="red" d="M0 0h1"/>${chain(12)}</defs><use href="#g12"/>`),
  'a use of itself': () => svg('<use id="u" stroke="red" href="#u"/>'),
  'a path of a million letters': () => svg(`<path stroke="red" d="${'M'.repeat(1e6)}"/>`),
  'a transform of a megabyte': () => svg(`<path stroke="red" d="M0 0h1" transform="${'scale(1) '.repeat(1e5)}"/>`),
  'two hundred thousand groups side by side': () => svg('<g/>'.repeat(2e5)),
  'fifty thousand lines to move': () => svg('<path stroke="red" d="M0 0h1"/>\n'.repeat(5e4)),
  'a style sheet of a megabyte': () => svg(`<style>${'.a{stroke:red}'.repeat(8e4)}</style>`),
  'an instruction of a megabyte': () => `PD${'1,'.repeat(5e5)}`,
  'an instruction of two million numbers': () => `PD${'7,'.repeat(2e6)}`,
  'a label without end': () => `LB${'x'.repeat(1e6)}`,
  'fifty thousand lines of a hundred metres': () => `SP1;${'PD0,0;PD0,3900000;'.repeat(25_000)}`,
  'a circle of a thousand kilometres': () => 'SP1;CI99999999999;',
  'a DXF of a million empty lines': () => '\n'.repeat(1e6),
  'twenty thousand DXF lines of a hundred metres': () =>
    `0\nSECTION\n2\nENTITIES\n${'0\nLINE\n62\n1\n8\n0\n10\n0\n20\n0\n11\n0\n21\n99000\n'.repeat(20_000)}0\nENDSEC\n`,
  'an arc of no size': () =>
    '0\nSECTION\n2\nENTITIES\n0\nARC\n62\n1\n8\n0\n10\n0\n20\n0\n40\n0\n50\n0\n51\n1e8\n0\nENDSEC\n',
  'blocks that insert each other and themselves': blocksWithinBlocks,
};

const answers = Object.fromEntries(Object.entries(FILES).map(([name, text]) => [name, answersTo(text())]));
console.log(JSON.stringify({ answers, mostMb: Math.round(process.resourceUsage().maxRSS / 1024) }));
