import { codedFigures } from '../target/coded-figure';
import type { SheetDefinition } from '../target/sheet-definition';
import type { ScanFigure } from './measured-figure';

/** How a figure is known among a sheet's. */
export const scanKey = ({ setNo, spotNo }: { readonly setNo: number; readonly spotNo: number }): string =>
  `${setNo} ${spotNo}`;

/** The coded figures of a sheet, of both sets: those that are not cut yet carry the page as well. */
export const scanFigures = (definition: Pick<SheetDefinition, 'discs' | 'liftOffs'>): readonly ScanFigure[] =>
  codedFigures(definition).map(({ setNo, spotNo, ...figure }) => ({ key: scanKey({ setNo, spotNo }), ...figure }));
