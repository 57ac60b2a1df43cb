import { parseStationList } from './station-list';

const BOTH = ['left', 'right'] as const;

describe('a list of readings along a roll', () => {
  it('as a spreadsheet writes it: semicolons, decimal commas, sides by their letters, empty cells left out', () => {
    const list = parseStationList('station;side;across;along\n1;L;0,12;-0,3\n1;right;;0,05\n', BOTH, 'mm');
    expect(list.problems).toEqual([]);
    expect(list.readings).toEqual([
      { line: 2, stationNo: 1, side: 'left', axis: 'across', readingMm: 0.12 },
      { line: 2, stationNo: 1, side: 'left', axis: 'along', readingMm: -0.3 },
      { line: 3, stationNo: 1, side: 'right', axis: 'along', readingMm: 0.05 },
    ]);
  });

  it('a unit in the head, pieces instead of stations, and no side where there is only one', () => {
    const list = parseStationList('piece,along (in)\n12,0.01\n', ['centre'], 'mm');
    expect(list.readings).toEqual([{ line: 2, stationNo: 12, side: 'centre', axis: 'along', readingMm: 0.254 }]);
  });

  it('what is wrong is told by its line and field, nothing is guessed', () => {
    const list = parseStationList('station,side,across\nx,left,1\n2,up,1\n3,left,abc\n4,left,1\n4,left,2', BOTH, 'mm');
    expect(list.problems.map((p) => [p.line, p.field])).toEqual([
      [2, 'station'],
      [3, 'side'],
      [4, 'across'],
      [6, 'across'],
    ]);
    expect(parseStationList('1,2,3', BOTH, 'mm').problems[0]?.field).toBe('head');
    expect(parseStationList('station,across\n1,2', BOTH, 'mm').problems[0]?.field).toBe('head');
  });
});
