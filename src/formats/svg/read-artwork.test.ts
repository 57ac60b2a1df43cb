import sharp from 'sharp';
import { readArtwork, type Artwork } from './read-artwork';
import { SVG_KINDS } from './svg-kinds.testing';

const page = (inside: string, style = ''): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="40mm" height="40mm" viewBox="0 0 40 40"><style>${style}</style>${inside}</svg>`;
const read = (svg: string): Artwork => {
  const found = readArtwork(svg);
  if (!found.ok) throw new Error(found.error.words);
  return found.value;
};

const SIDE_PX = 400;
async function inkOf(svg: string): Promise<Uint8Array> {
  const { data, info } = await sharp(Buffer.from(svg), { density: 254 })
    .flatten({ background: '#fff' })
    .resize(SIDE_PX, SIDE_PX, { fit: 'fill' })
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return Uint8Array.from({ length: SIDE_PX * SIDE_PX }, (_, i) => {
    const [r = 0, g = 0, b = 0] = data.subarray(i * info.channels, i * info.channels + 3);
    return (r > 128 ? 1 : 0) + (g > 128 ? 2 : 0) + (b > 128 ? 4 : 0);
  });
}

/** What was read, written plainly: one path a shape, in page mm, y turned down. */
function plainSvg({ shapes, widthMm, heightMm }: Artwork): string {
  const paths = shapes.map((shape) => {
    const d = shape.commands.map((c) => c.op + c.points.map((p) => `${p.x} ${heightMm - p.y}`).join(' ')).join('');
    const s = shape.stroke;
    const stroke = s
      ? `stroke="${s.colour}" stroke-width="${s.widthMm}" stroke-linecap="${s.ends}" stroke-linejoin="${s.corners}" stroke-miterlimit="${s.miterLimit}"`
      : '';
    return `<path d="${d}" fill="${shape.fill ?? 'none'}" fill-rule="${shape.isEvenOdd ? 'evenodd' : 'nonzero'}" ${stroke}/>`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${widthMm}mm" height="${heightMm}mm" viewBox="0 0 ${widthMm} ${heightMm}">${paths.join('')}</svg>`;
}

describe('art read from an SVG, drawn again as plain paths, against an independent renderer (librsvg)', () => {
  const kinds = Object.entries(SVG_KINDS).filter(([, svg]) => {
    const art = readArtwork(svg);
    return art.ok && art.value.texts.length === 0 && art.value.shapes.every((s) => s.beyond.length === 0);
  });
  it('most kinds are plain enough to be printed', () => {
    expect(kinds.length).toBeGreaterThanOrEqual(18);
  });
  it.each(kinds)('%s', async (_name, svg) => {
    const [wanted, got] = await Promise.all([inkOf(svg), inkOf(plainSvg(read(svg)))]);
    const inked = wanted.filter((v) => v !== 7).length;
    const differing = wanted.filter((v, i) => v !== got[i]).length;
    expect(inked).toBeGreaterThan(300);
    expect(differing / inked).toBeLessThan(0.02);
  });
  it('fills, holes by either rule, widths under a scale, colours by class, uses that colour their content', async () => {
    const svg = page(
      `<g transform="scale(2)"><path class="a" d="M1 1h8v8h-8z M3 3h4v4h-4z" fill-rule="evenodd"/></g>
       <path d="M22 2h14v14h-14z M26 6v6h6v-6z" fill="#008000" stroke="#0000ff" stroke-width="1"/>
       <defs><g id="dot"><circle r="3"/></g></defs><use href="#dot" x="8" y="30" fill="#ff0000"/><use href="#dot" x="20" y="30"/>
       <rect x="28" y="24" width="10" height="12" fill="none" stroke="#ff00ff" stroke-width="2"/>`,
      '.a{fill:#00ffff}',
    );
    const [wanted, got] = await Promise.all([inkOf(svg), inkOf(plainSvg(read(svg)))]);
    const inked = wanted.filter((v) => v !== 7).length;
    expect(wanted.filter((v, i) => v !== got[i]).length / inked).toBeLessThan(0.01);
  });
});

describe('what is beyond a plain print file is named', () => {
  it.each([
    ['<rect width="5" height="5" fill="url(#g)"/>', 'a gradient, a pattern or a see-through colour'],
    ['<rect width="5" height="5" fill="rgba(0,0,0,0.5)"/>', 'a gradient, a pattern or a see-through colour'],
    ['<g opacity="0.5"><rect width="5" height="5"/></g>', 'transparency'],
    ['<rect width="5" height="5" style="fill-opacity:.3"/>', 'transparency'],
    ['<rect width="5" height="5" filter="url(#f)"/>', 'a filter'],
    ['<path d="M1 1h5" stroke="red" stroke-dasharray="2 1"/>', 'a dashed line'],
    ['<path d="M1 1h5" stroke="red" stroke-linejoin="arcs"/>', 'line ends or corners of an unknown kind'],
    ['<path d="M1 1h5" stroke="red" marker-end="url(#m)"/>', 'arrow heads'],
    ['<g clip-path="url(#c)"><rect width="5" height="5"/></g>', 'a clipped part'],
    ['<g transform="scale(2 1)"><path d="M1 1h5" stroke="red"/></g>', 'a line stretched more one way than the other'],
  ])('%s', (inside, wanted) => {
    expect(read(page(inside)).shapes[0]?.beyond).toContain(wanted);
  });
  it('what is not shown is not read; opacity 1 is nothing', () => {
    const art = read(
      page(
        '<g display="none"><rect width="5" height="5"/></g><rect style="visibility:hidden" width="5" height="5"/><rect width="5" height="5" opacity="1"/>',
      ),
    );
    expect(art.shapes).toHaveLength(1);
    expect(art.shapes[0]?.beyond).toEqual([]);
  });
  it('text and pictures inside are told with their place', () => {
    const art = read(page('<text stroke="red">River</text>\n<image href="data:,"/>'));
    expect(art.texts).toEqual([{ colour: '#ff0000', layer: 'no layer', place: 'line 1, <text>' }]);
    expect(art.others).toEqual([{ name: 'a picture inside the drawing', place: 'line 2' }]);
  });
});
