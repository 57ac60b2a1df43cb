import { inverseOf, then, translation, type Affine, type Point } from '../geometry/affine';
import { machineToFileAxes, type FileAxes } from '../geometry/file-axes';
import { mapOnSheet, type Load } from '../geometry/load';

/** How a drawing's own directions stand to the machine: on the sheet as it was loaded, or by the axes of a plain cut file. */
export type DrawingLies =
  { readonly kind: 'on-sheet'; readonly load: Load } | { readonly kind: 'by-axes'; readonly axes: FileAxes };

/** The same map about another place of the page: what it did at the origin it now does at `centre`. */
export function aboutCentre(map: Affine<'page', 'page'>, centre: Point<'page'>): Affine<'page', 'page'> {
  return then(then(translation<'page'>(-centre.x, -centre.y), map), translation<'page'>(centre.x, centre.y));
}

/**
 * A correction of the machine as a move of a drawing's lines, page frame (y up). The correction was measured about the
 * middle of the marks: `centre` is where that middle lies on the page.
 */
export function correctionOnPage(
  correction: Affine<'machine', 'machine'>,
  lies: DrawingLies,
  centre: Point<'page'>,
): Affine<'page', 'page'> {
  if (lies.kind === 'on-sheet') {
    const { xx, xy, yx, yy, tx, ty } = mapOnSheet(correction, lies.load);
    return aboutCentre({ xx, xy, yx, yy, tx, ty }, centre);
  }
  const toFile = machineToFileAxes(lies.axes);
  const { xx, xy, yx, yy, tx, ty } = then(then(inverseOf(toFile), correction), toFile);
  return aboutCentre({ xx, xy, yx, yy, tx, ty }, centre);
}
