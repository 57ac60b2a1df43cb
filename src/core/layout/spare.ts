/** Side of a test cut's square. Common practice, no published source. */
export const TEST_CUT_MM = 20;
/** Free material about the test cut. Common practice, no published source. */
export const TEST_CUT_ROOM_MM = 5;

export interface SpareFacts {
  readonly frontMm: number;
  readonly rearMm: number;
  /** What the machine wants behind the last marks so that its sensor stays covered; 0 where it is not known. */
  readonly sensorMm: number;
}

export interface SpareFinding {
  readonly kind: 'no-test-cut' | 'no-rear' | 'rear-short';
  readonly missingMm: number;
}

/** Spare for the test cut before the first marks and for the sensor behind the last. */
export function checkSpare({ frontMm, rearMm, sensorMm }: SpareFacts): readonly SpareFinding[] {
  const findings: SpareFinding[] = [];
  const neededMm = TEST_CUT_MM + 2 * TEST_CUT_ROOM_MM;
  if (frontMm < neededMm) findings.push({ kind: 'no-test-cut', missingMm: neededMm - frontMm });
  if (rearMm <= 0) findings.push({ kind: 'no-rear', missingMm: sensorMm });
  else if (rearMm < sensorMm) findings.push({ kind: 'rear-short', missingMm: sensorMm - rearMm });
  return findings;
}
