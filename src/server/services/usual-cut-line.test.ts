import { usualCutLine } from './usual-cut-line';

describe('how a cut is best seen', () => {
  it.each([
    ['Copy paper', 'matt', '', 'rubbed'],
    ['Heavy card', '250 g', '', 'rubbed'],
    ['Waymarker vinyl', 'gloss white', '', 'weeded'],
    ['Sticker paper', 'gloss', '', 'weeded'],
    ['Copy paper', 'matt', 'liner', 'weeded'],
    ['Window film', 'clear', 'none', 'rubbed'],
    ['Postcard stock', 'matt', '', 'weeded'],
  ] as const)('%s, %s, carrier "%s": %s', (name, finish, carrier, line) => {
    expect(usualCutLine({ name, finish, carrier })).toBe(line);
  });
});
