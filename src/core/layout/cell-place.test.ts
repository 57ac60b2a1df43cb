import { apply } from '../geometry/affine';
import { boxOnPage, cellToPage } from './cell-place';

describe('a cell on the page', () => {
  // A cell of 60 x 30, turned, stands in a box of 30 x 60.
  const turned = { box: { left: 100, bottom: 50, width: 30, height: 60 }, turnDeg: 90 } as const;
  it('a quarter turn keeps it in its place', () => {
    const at = (x: number, y: number) => apply(cellToPage(turned), { x, y });
    expect(at(0, 0)).toEqual({ x: 130, y: 50 });
    expect(at(60, 0)).toEqual({ x: 130, y: 110 });
    expect(at(60, 30)).toEqual({ x: 100, y: 110 });
  });
  it.each([0, 90] as const)('boxes in it go where their corners go, turned by %p', (turnDeg) => {
    const placement = { ...turned, turnDeg };
    const inside = { left: 5, bottom: 2, width: 20, height: 10 };
    const a = apply(cellToPage(placement), { x: 5, y: 2 });
    const b = apply(cellToPage(placement), { x: 25, y: 12 });
    expect(boxOnPage(inside, placement)).toEqual({
      left: Math.min(a.x, b.x),
      bottom: Math.min(a.y, b.y),
      width: Math.abs(b.x - a.x),
      height: Math.abs(b.y - a.y),
    });
  });
});
