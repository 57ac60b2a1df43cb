import type { CombinedScans } from '@/core/scan/combine-scans';
import type { ScanResult } from '@/core/scan/scan-result';
import { DISC_STATES } from '@/core/scan/disc-measure';
import { doubtWords, faceWords, failureWords, nothingCutWords, oddsWords, scanLine } from './scan-words';
import { stateWords } from './state-words';

const scan: ScanResult = {
  kind: 'scan',
  discs: [],
  tiltRad: 0,
  isMirrored: false,
  isMixed: false,
  turnDeg: 90,
  cutShape: 'hole',
  pixelsPerMm: 300 / 25.4,
};
const combined = (shadowSdMm: number, kind: CombinedScans['kind'] = 'scan'): CombinedScans => ({
  kind,
  atOdds: null,
  discs: [],
  shadowMm: 0.0163,
  shadowSdMm,
});

describe('what is said of scans', () => {
  it('one alone: what it cannot know, which way on the sheet, and what another would buy', () => {
    expect(doubtWords([scan], combined(0.0144), 'mm')).toMatch(
      /up to 0\.028 mm across the sheet.*quarter.*that doubt goes/,
    );
    expect(doubtWords([{ ...scan, turnDeg: 180 }], combined(0.0144), 'in-decimal')).toMatch(
      /0\.0011 in along the sheet/,
    );
  });
  it('two that lay the same way leave it, two that did not are free of it', () => {
    expect(doubtWords([scan, scan], combined(0.0144), 'mm')).toMatch(/lie the same way/);
    expect(doubtWords([scan, scan], combined(0.002), 'mm')).toMatch(/by 0\.016 mm; taken together they are free of it/);
  });
  it('two that differ by more than they should: by how much and where', () => {
    const own = [{ key: '1 4', spotNo: 4 }];
    expect(oddsWords(combined(0.002), own)).toBeNull();
    expect(oddsWords({ atOdds: { factor: 2.61, key: '1 4' } }, own)).toMatch(
      /differ by 2\.6 times what they should, most at spot 4: .*take the odd scan away/,
    );
    expect(oddsWords({ atOdds: { factor: 3, key: '2 4' } }, own)).toMatch(/what they should: a hair/);
  });
  it('a picture of the print alone: no hole in any disc', () => {
    const own = new Set(['1 1', '1 2']);
    const closed = [
      { key: '1 1', state: 'not-weeded' },
      { key: '1 2', state: 'missing' },
      { key: '2 1', state: 'good' },
    ] as const;
    expect(nothingCutWords(closed, own, { cutShape: 'hole', hasRough: false })).toMatch(
      /No disc of this cut shows an open hole.*white card/,
    );
    expect(
      nothingCutWords([{ key: '1 1', state: 'partial' }, ...closed], own, { cutShape: 'hole', hasRough: true }),
    ).toBeNull();
    const far = [{ key: '1 1', state: 'bad-cut' }, ...closed] as const;
    expect(nothingCutWords(far, own, { cutShape: 'hole', hasRough: true })).toMatch(/too far off for a scan/);
    expect(nothingCutWords(far, own, { cutShape: 'hole', hasRough: false })).not.toMatch(/too far off/);
    expect(nothingCutWords([{ key: '1 1', state: 'missing' }], own, { cutShape: 'hole', hasRough: true })).toBeNull();
  });
  it('lines and loose pieces have words of their own', () => {
    expect(doubtWords([{ turnDeg: 0, cutShape: 'line' }], combined(0), 'mm')).toMatch(/casts no shadow: one scan/);
    const loose = { turnDeg: null, cutShape: 'edge' } as const;
    expect(doubtWords([loose], combined(0.0144), 'mm')).toMatch(/^One scan .* up to 0\.028 mm .*Turn every disc/);
    expect(doubtWords([loose, loose], combined(0.0144), 'mm')).toMatch(/^Scans in which the pieces lie the same way/);
    expect(doubtWords([loose, loose], combined(0.002), 'mm')).toMatch(/taken together they are free/);
    expect(scanLine({ ...scan, turnDeg: null, cutShape: 'edge' }, new Set())).toMatch(
      /300 dpi, loose pieces: 0 of 0 discs/,
    );
    expect(scanLine({ ...scan, cutShape: 'line' }, new Set())).toMatch(/0 of 0 rings measured/);
    const closed = [{ key: '1 1', state: 'not-weeded' }] as const;
    expect(nothingCutWords(closed, new Set(['1 1']), { cutShape: 'line', hasRough: false })).toMatch(
      /No ring .*soft pencil/,
    );
    expect(nothingCutWords(closed, new Set(['1 1']), { cutShape: 'edge', hasRough: false })).toMatch(/dark card/);
    expect(failureWords({ kind: 'other-pieces' })).toMatch(/another check.*alone/);
    expect(failureWords({ kind: 'pieces-aslant' })).toMatch(/photograph.*measured on a scanner/);
  });
  it('every state of every kind of figure has a name, and what to do unless it is good', () => {
    for (const cutShape of ['hole', 'line', 'edge'] as const)
      for (const state of DISC_STATES) {
        const { name, todo } = stateWords(state, cutShape);
        expect(name).not.toBe('');
        expect(todo === '').toBe(state === 'good');
      }
  });
  it('where discs are printed on both faces, a scan of the other one is told', () => {
    const front = { isMirrored: false, isMixed: false };
    const back = { isMirrored: true, isMixed: false };
    expect(faceWords(back, { face: 'front', isFaceTold: false })).toBeNull();
    expect(faceWords(front, { face: 'front', isFaceTold: true })).toBeNull();
    expect(faceWords(back, { face: 'back', isFaceTold: true })).toBeNull();
    expect(faceWords(front, { face: 'back', isFaceTold: true })).toMatch(/fronts\. Turn each of them over/);
    expect(faceWords(back, { face: 'front', isFaceTold: true })).toMatch(/backs\. Turn/);
    expect(faceWords({ isMirrored: false, isMixed: true }, { face: 'back', isFaceTold: true })).toMatch(
      /Some discs.*the back to/,
    );
  });
  it('a photograph is called approximate', () => {
    expect(doubtWords([scan], combined(0.02, 'photo'), 'mm')).toMatch(/approximate.*second photograph/);
    expect(scanLine({ ...scan, kind: 'photo', tiltRad: 0.5 }, new Set())).toMatch(
      /29\u00b0 from straight above.*Hold the camera straighter/,
    );
  });
  it('how a scan lay, and when it is too coarse to be proud of', () => {
    expect(scanLine({ ...scan, isMirrored: true }, new Set())).toMatch(
      /300 dpi, turned by 90\u00b0, seen from behind: 0 of 0/,
    );
    expect(scanLine({ ...scan, pixelsPerMm: 6 }, new Set())).toMatch(/Coarse: 300 dpi is right/);
  });
  it('why one could not be measured, and what to do', () => {
    expect(failureWords({ kind: 'no-discs' })).toMatch(/No coded disc.*300 dpi/);
    expect(failureWords({ kind: 'no-page', decoded: [] })).toMatch(/Only 0 coded discs.*three are needed/);
    expect(failureWords({ kind: 'two-sheets' })).toMatch(/one at a time/);
    expect(failureWords({ kind: 'too-coarse', dotsPerInch: 99.6 })).toMatch(/100 dots an inch.*300 are right/);
    expect(failureWords({ kind: 'not-flat', typicalMm: 0.8 })).toMatch(/0\.800 mm.*Lay it flat/);
    expect(failureWords({ kind: 'damaged', words: 'The PNG is damaged.' })).toBe('The PNG is damaged.');
  });
});
