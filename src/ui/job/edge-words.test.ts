import { budgetLines, edgeSentence, neededSentence, shareWords } from './edge-words';

const answer = {
  pieceShare: 0.041,
  jobShare: 0.12,
  neededMm: 1.234,
  budgetMm: 1.2,
  budget: {
    place: { x: 70, y: -110 },
    meanMm: 0.05,
    lines: [
      { source: 'constant' as const, sdMm: 0.03, share: 0.36 },
      { source: 'load' as const, sdMm: 0.04, share: 0.64 },
      { source: 'growth' as const, sdMm: 0, share: 0 },
    ],
    combinedSdMm: 0.05,
  },
};

describe('an edge in words', () => {
  it.each([
    [0, 'none'],
    [0.0004, 'fewer than 1 in 1000'],
    [0.004, 'about 1 in 250'],
    [0.041, 'about 4 %'],
  ])('%p: %s', (share, words) => {
    expect(shareWords(share)).toBe(words);
  });
  it('says on how many pieces it shows, and what would be enough, rounded up', () => {
    expect(edgeSentence('border', 1, answer, 'mm')).toBe(
      'This job\u2019s 1.00 mm border will show the error on about 4 % of pieces; about 12 % of jobs have at least one.',
    );
    expect(edgeSentence('bleed', 1, { ...answer, pieceShare: 0, jobShare: 0 }, 'mm')).toContain(
      '1.00 mm bleed hides the error on every piece',
    );
    expect(edgeSentence('none', 0, answer, 'mm')).toContain('edge, without border or bleed, will show');
    expect(neededSentence(1, answer, 0.95, 'mm')).toBe('For 95 % of jobs with nothing to be seen it takes 1.24 mm.');
    expect(neededSentence(1.3, answer, 0.95, 'mm')).toBe('1.24 mm would be enough for 95 % of jobs: this is.');
  });
  it('shows a budget whose squares add up', () => {
    const lines = budgetLines(answer.budget, answer.budgetMm).join('\n');
    expect(lines).toContain('0.030 (36 % of the squares)');
    expect(Math.hypot(0.03, 0.04)).toBeCloseTo(0.05, 12);
    expect(lines).toContain('root of the sum of their squares: 0.050');
  });
});
