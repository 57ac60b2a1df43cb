/** A data sheet's figure holds for one direction, one batch and one carrier: taken as right within half of itself. Assumed, no published source. */
const DOUBT = 0.5;

/** A change of conditions that shops see within a day. */
export const USUAL_WARMING_K = 10;
export const USUAL_HUMIDITY_PERCENT = 20;

export interface Growth {
  readonly mm: number;
  readonly leastMm: number;
  readonly mostMm: number;
}

/**
 * How much a length of a material grows, with the wide doubt that its coefficient deserves.
 * @param perUnit change of length over length for one kelvin or one percent of relative humidity, >= 0.
 * @param units kelvin or percent; lengthMm the length it is asked for.
 */
export function growthOf(perUnit: number, units: number, lengthMm: number): Growth {
  const mm = perUnit * units * lengthMm;
  return { mm, leastMm: mm * (1 - DOUBT), mostMm: mm * (1 + DOUBT) };
}

const shown = (mm: number): string => mm.toFixed(mm < 0.1 ? 3 : 2);

/** What coefficients mean on a metre, in words, each with where it is from; nothing for what is not told. */
export function growthWords(material: {
  readonly thermalPerK: number | null;
  readonly thermalSource: string;
  readonly humidityPerPercent: number | null;
  readonly humiditySource: string;
}): readonly string[] {
  const line = (condition: string, { mm, leastMm, mostMm }: Growth, source: string): string =>
    `${condition}, a metre of it grows by ${shown(mm)} mm, perhaps ${shown(leastMm)} to ${shown(mostMm)} (${source || 'no source told'}).`;
  const { thermalPerK, humidityPerPercent } = material;
  return [
    ...(thermalPerK
      ? [line(`${USUAL_WARMING_K} K warmer`, growthOf(thermalPerK, USUAL_WARMING_K, 1000), material.thermalSource)]
      : []),
    ...(humidityPerPercent
      ? [
          line(
            `In air ${USUAL_HUMIDITY_PERCENT} % damper`,
            growthOf(humidityPerPercent, USUAL_HUMIDITY_PERCENT, 1000),
            material.humiditySource,
          ),
        ]
      : []),
  ];
}
