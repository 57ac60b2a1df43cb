import 'server-only';
import { createRequire } from 'node:module';
import { readFileSync } from 'node:fs';
import { create, type Font } from 'fontkit';
import { then, type Affine } from '@/core/geometry/affine';
import type { InkText } from '@/core/target/figure-ink';
import { mapCommands, type PathCommand } from '@/formats/vector-drawing';

let font: Font | null = null;

function fontFace(): Font {
  if (!font) {
    const file = createRequire(`${process.cwd()}/package.json`).resolve(
      '@fontsource/spline-sans-mono/files/spline-sans-mono-latin-500-normal.woff',
    );
    const opened = create(readFileSync(file));
    if (!('layout' in opened)) throw new Error('the font file holds a collection');
    font = opened;
  }
  return font;
}

const OPS = { moveTo: 'M', lineTo: 'L', quadraticCurveTo: 'Q', bezierCurveTo: 'C', closePath: 'Z' } as const;
const QUARTER: Record<InkText['turnDeg'], readonly [number, number]> = { 0: [1, 0], 90: [0, 1], 270: [0, -1] };

/** Text as outlines in the sheet frame, so that no program can replace the face: baseline's middle at `at`. */
export function outlineText(text: InkText): readonly PathCommand<'sheet'>[] {
  const face = fontFace();
  const run = face.layout(text.text);
  const scale = text.heightMm / face.capHeight;
  const [c, s] = QUARTER[text.turnDeg];
  const place: Affine<'page'> = { xx: c, xy: -s, yx: s, yy: c, tx: text.at.x, ty: text.at.y };
  let advance = -run.advanceWidth / 2;
  return run.glyphs.flatMap((glyph, i) => {
    const commands = glyph.path.commands.map((command): PathCommand<'page'> => {
      const points = [];
      for (let k = 0; k + 1 < command.args.length; k += 2)
        points.push({ x: command.args[k] ?? 0, y: command.args[k + 1] ?? 0 });
      return { op: OPS[command.command], points };
    });
    const set: Affine<'page', 'page'> = { xx: scale, xy: 0, yx: 0, yy: scale, tx: advance * scale, ty: 0 };
    advance += run.positions[i]?.xAdvance ?? 0;
    return mapCommands(then(set, place), commands);
  });
}
