import { parseReadingList } from '@/formats/csv/reading-list';
import { judgedList } from './reading-list-view';

const FIGURES = [
  { spotNo: 1, axis: 'across' },
  { spotNo: 1, axis: 'along' },
] as const;

it('a figure that the cut does not have, and a value beyond what it shows, are told by line', () => {
  const list = parseReadingList('spot,across,along\n1,0.2,3.1\n2,0.1,\n', 'mm');
  const { problems, readings } = judgedList(list, FIGURES, 2);
  expect(readings).toHaveLength(3);
  expect(problems.map((p) => [p.line, p.field])).toEqual([
    [2, 'along'],
    [3, 'spot'],
  ]);
  expect(judgedList(parseReadingList('spot,across\n1,0.2\n', 'mm'), FIGURES, 2).problems).toEqual([]);
});
