/**
 * Speed of reading a scan as ratios of one run: decoding and measuring in headless Chromium, in a worker that was just
 * started, against OpenCV from Debian that reads the same file, thresholds it and fits an ellipse to every contour (no
 * identity, no damage, no uncertainty). Part of `npm run bench`.
 */
import { spawnSync } from 'node:child_process';
import { rmSync } from 'node:fs';
import { benchBrowser, type BenchBrowser } from './scan/browser';
import { folder, writeLargest, writeScan } from './scan/pictures';
import { print } from './timing';

const ROUNDS = 5;

const OPENCV = `
import cv2, json, sys, time
best = 1e9
for _ in range(2):
    start = time.perf_counter()
    image = cv2.imread(sys.argv[1], cv2.IMREAD_GRAYSCALE)
    _, dark = cv2.threshold(image, 0, 255, cv2.THRESH_BINARY_INV + cv2.THRESH_OTSU)
    contours, _ = cv2.findContours(dark, cv2.RETR_CCOMP, cv2.CHAIN_APPROX_NONE)
    ellipses = [cv2.fitEllipse(c) for c in contours if len(c) >= 30]
    best = min(best, time.perf_counter() - start)
print(json.dumps(best * 1e3))
`;

function openCvMs(path: string): number {
  const done = spawnSync('/usr/bin/python3', ['-c', OPENCV, path], { encoding: 'utf8' });
  if (done.status !== 0) throw new Error(done.stderr);
  return JSON.parse(done.stdout) as number;
}

async function compare(browser: BenchBrowser, name: string, path: string): Promise<void> {
  const runs = [];
  let reference = Infinity;
  // In turn, so that both have their share of whatever else the machine does.
  for (let round = 0; round < ROUNDS; round++) {
    runs.push(await browser.measure(path));
    reference = Math.min(reference, openCvMs(path));
  }
  const best = runs.reduce((a, b) => (b.measuredMs < a.measuredMs ? b : a));
  if (best.good !== 24) throw new Error(`${best.good} of 24 discs are good`);
  print(
    `${name.padEnd(46)}${best.measuredMs.toFixed(0).padStart(10)} ms${reference.toFixed(0).padStart(12)} ms ${"OpenCV's contours".padEnd(26)}${(best.measuredMs / reference).toFixed(2).padStart(8)}   close-ups as well ${best.allMs.toFixed(0)} ms, ${best.peakMb.toFixed(0)} MB`,
  );
}

const browser = await benchBrowser();
try {
  print('\nA4 decoded and measured in the browser, from a cold start; the least disturbed of five:');
  await compare(browser, '300 dpi', await writeScan(300));
  await compare(browser, '600 dpi', await writeScan(600));
  await compare(browser, '600 dpi in colour', await writeScan(600, 'colour'));
  await compare(browser, '1200 dpi', await writeScan(1200));
  const largest = await browser.measure(await writeLargest());
  print(
    `400 million pixels: ${(largest.measuredMs / 1000).toFixed(1)} s, ${largest.peakMb.toFixed(0)} MB for the whole page and its workers`,
  );
} finally {
  browser.close();
  rmSync(folder, { recursive: true });
}
