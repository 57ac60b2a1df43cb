import type { SheetDefinition } from '../target/sheet-definition';
import type { ScanFigure } from './measure-scan';

/** How a disc is known among a sheet's figures. */
export const scanKey = ({ setNo, spotNo }: { readonly setNo: number; readonly spotNo: number }): string =>
  `${setNo} ${spotNo}`;

/** The coded discs of a sheet, of both sets: those that are not cut yet carry the page as well. */
export const scanFigures = ({ discs }: Pick<SheetDefinition, 'discs'>): readonly ScanFigure[] =>
  discs.map(({ setNo, spotNo, centre, radiusMm, holeRadiusMm, codeNo }) => ({
    key: scanKey({ setNo, spotNo }),
    ...{ centre, radiusMm, holeRadiusMm, codeNo },
  }));
