import 'server-only';
import type { SetupRow } from '@/db/queries/shop';

/** Where the shop has not typed one. */
const USUAL_SPOT_INK = 'Cut';

/** Name of the spot ink by which a setup's printing software knows the lines that are cut. */
export const spotInkOf = ({ program }: Pick<SetupRow, 'program'>): string => program?.spotInkName ?? USUAL_SPOT_INK;
