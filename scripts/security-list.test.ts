import { existsSync, readFileSync } from 'node:fs';

/** Rows of the list in docs/security.md: the point and the test it names. */
const rows = readFileSync('docs/security.md', 'utf8')
  .split('\n')
  .filter((line) => /^\| \d/.test(line))
  .map((line) => line.split('|').map((cell) => cell.trim()))
  .map(([, point = '', , how = '', test = '']) => ({ point, how, test }));

it('the list of security points is there', () => {
  expect(rows.length).toBeGreaterThan(30);
});

it.each(rows)('point $point names a test that exists, or says that it is not met', ({ how, test }) => {
  if (test === 'none') {
    expect(how).toMatch(/^\*\*(not|only)/);
    return;
  }
  const [file = '', title = ''] = test.split(/: (.*)/s);
  expect(existsSync(file)).toBe(true);
  const source = readFileSync(file, 'utf8');
  const titles = [...source.matchAll(/(?:it|test)(?:\.each\([\s\S]*?\))?\(\s*(['`])(.*?)\1/g)].map((m) => m[2] ?? '');
  expect(titles.filter((t) => t.startsWith(title))).not.toEqual([]);
});
