/** Default repeatability of an eye matching a picture, until known from repeats. Common practice, no published source. */
export const EYE_SD_MM = 0.04;
/** Rounding of a cut file in plotter units of 0.025 mm. */
export const PLOTTER_ROUNDING_MM = 0.025 / Math.sqrt(12);

export interface ReadingConditions {
  readonly stepMm: number;
  readonly operatorSdMm: number;
  readonly printerDotMm: number;
  readonly isPlotterFile: boolean;
}

/** u^2 = step^2/12 + operator^2 + dot^2/12 + file rounding^2: standard uncertainty of one reading, mm. */
export function readingUncertainty(c: ReadingConditions): number {
  const file = c.isPlotterFile ? PLOTTER_ROUNDING_MM : 0;
  return Math.hypot(c.stepMm / Math.sqrt(12), c.operatorSdMm, c.printerDotMm / Math.sqrt(12), file);
}

/** Repeatability of an eye that evens out two rims or walls, each judged to a tenth of a mm. Common practice, no published source. */
export const RIM_EYE_SD_MM = 0.07;

/** Half the difference of two rims or walls, each between the jaws of a caliper to 0.07 mm. Common practice, no published source. */
export const ROUND_CALIPER_SD_MM = 0.05;
/** Scans of one sheet taken again agree to this. Own simulation, no published source. */
export const SCAN_SD_MM = 0.003;
/** The rough L is matched to a quarter of a mm over a mm grid. */
export const ROUGH_STEP_MM = 0.25;
export const ROUGH_EYE_SD_MM = 0.15;
