import 'server-only';
import type { Affine } from '@/core/geometry/affine';
import { discInk } from '@/core/target/figure-ink';
import { circleAbout } from '@/core/target/lift-off';
import {
  TEMPLATE_CUT_COLOUR,
  TEMPLATE_DISC_ROOM_MM,
  templateDisc,
  type TemplateDiscNo,
} from '@/core/target/template-discs';
import { mapCommands, polyline, type VectorDrawing } from '@/formats/vector-drawing';
import { CUT_LAYERS, CUT_LINE_MM, INK_COLOUR, inkPath } from './sheet-drawing';

/** One small disc with its cut line, to be placed beside the work. */
export function templateDiscDrawing(discNo: TemplateDiscNo, spotInk?: string): VectorDrawing {
  const size = TEMPLATE_DISC_ROOM_MM;
  const disc = templateDisc(discNo, { x: size / 2, y: size / 2 });
  const placing: Affine<'sheet', 'file'> = { xx: 1, xy: 0, yx: 0, yy: 1, tx: 0, ty: 0 };
  return {
    title: `Small disc ${discNo} for the daily check`,
    widthMm: size,
    heightMm: size,
    layers: [
      { name: 'ink', colour: INK_COLOUR, paths: discInk(disc).map((shape) => inkPath(shape, placing)) },
      {
        name: CUT_LAYERS[1],
        colour: TEMPLATE_CUT_COLOUR,
        ...(spotInk === undefined ? {} : { spotInk }),
        paths: [
          {
            commands: mapCommands(placing, polyline(circleAbout(disc.centre, disc.holeRadiusMm))),
            paint: { kind: 'stroke', widthMm: CUT_LINE_MM },
          },
        ],
      },
    ],
  };
}
