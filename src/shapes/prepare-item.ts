import { apply, type Affine, type Point } from '@/core/geometry/affine';
import { closedPoints, lineBox, type CutLine } from '@/core/artwork/cut-line';
import {
  doubledLines,
  letteringAmong,
  linesOffArt,
  originalsUnderOffsets,
  specks,
  WIDEST_OFFSET_MM,
} from '@/core/artwork/line-checks';
import type { ItemFinding } from '@/core/artwork/item-finding';
import { effectiveDpi, LEAST_DPI, STRETCH_SHARE, stretchOf } from '@/core/artwork/picture-checks';
import { edgeOffsetMm, type ItemArt } from '@/core/layout/job-draft';
import type { Box } from '@/core/target/block';
import { flatten } from '@/formats/flatten';
import type { ArtShape, Artwork } from '@/formats/svg/read-artwork';
import { mapCommands, polyline } from '@/formats/vector-drawing';
import { lostParts, ringsBox, SLIVER_MM, sliversOf, unionOf, type Ring } from './outline';
import { strokeArea } from './stroke-area';
import { linesRound } from './outline-round';
import { measureOwnEdge } from './own-edge';
import { mirrorIn, plainCut, type PreparedItem, type PrepareRequest, type PrintShape } from './prepared-item';

type Drawing = Extract<ItemArt, { kind: 'drawing' }>;
type Picture = Extract<ItemArt, { kind: 'picture' }>;

/** Curves of outlines that are offset come within this of their chords: less than an offset may err. */
const FLATNESS_MM = 0.002;

interface Named {
  readonly colour: string;
  readonly layer: string;
}

const isAmong = (names: readonly string[], { cutBy }: Drawing, { colour, layer }: Named): boolean =>
  names.includes(cutBy === 'colour' ? colour : layer);
const isCut = (art: Drawing, named: Named): boolean => isAmong(art.cutNames, art, named);
const isScored = (art: Drawing, named: Named): boolean => isAmong(art.scoreNames ?? [], art, named);
/** Neither cut nor scored: ink. */
const isPrinted = (art: Drawing, named: Named): boolean => !isCut(art, named) && !isScored(art, named);

const uniquely = (words: readonly string[]): readonly string[] => [...new Set(words)];

interface Ink {
  readonly rings: readonly Ring[];
  readonly flatnessMm: number;
}

/** Ink of shapes that was worked out before: the same drawing is asked for again and again while it is being placed. */
const inks = new WeakMap<ArtShape, Ink>();

/** What a shape's ink covers, in the drawing's own size. @param flatnessMm its curves come within this of their chords. */
function inkOf(shape: ArtShape, flatnessMm = FLATNESS_MM): readonly Ring[] {
  const known = inks.get(shape);
  if (known && known.flatnessMm <= flatnessMm) return known.rings;
  const rings = freshInk(shape, flatnessMm);
  inks.set(shape, { rings, flatnessMm });
  return rings;
}

function freshInk({ commands, fill, isEvenOdd, stroke }: ArtShape, flatnessMm: number): readonly Ring[] {
  const paths = flatten(commands, flatnessMm);
  const points = paths.map((p) => p.points);
  const filled = fill ? unionOf(points, isEvenOdd ? 'evenodd' : 'nonzero') : [];
  const lined = stroke ? paths.flatMap((p) => strokeArea(p.points, p.isClosed, stroke)) : [];
  return [...filled, ...lined];
}

const linesOf = (shapes: readonly ArtShape[]): readonly CutLine[] =>
  shapes.flatMap((shape) =>
    flatten(shape.commands, FLATNESS_MM)
      .filter((path) => path.points.length > 1)
      .map((path) => ({
        points: withoutRepeat(path.points, path.isClosed),
        isClosed: path.isClosed,
        place: shape.place,
      })),
  );

/** Many programs end a closed path where it began and close it as well. */
function withoutRepeat(points: readonly Point<'page'>[], isClosed: boolean): readonly Point<'page'>[] {
  const [first] = points;
  const last = points.at(-1);
  const isRepeated = isClosed && points.length > 2 && first && last && first.x === last.x && first.y === last.y;
  return isRepeated ? points.slice(0, -1) : points;
}

/** A shape moved, its line width scaled with it where both sides are scaled alike, else by their mean. */
function movedShape(shape: ArtShape, map: Affine<'page', 'page'>): PrintShape {
  const scale = Math.sqrt(Math.abs(map.xx * map.yy - map.xy * map.yx));
  return {
    commands: mapCommands(map, shape.commands),
    fill: shape.fill,
    isEvenOdd: shape.isEvenOdd,
    stroke: shape.stroke && { ...shape.stroke, widthMm: shape.stroke.widthMm * scale },
  };
}

/** The line round a drawing's art, at the offset; holes as they were asked for. */
function outlineCut(ink: readonly (readonly Ring[])[], art: Drawing, { edge, onProgress }: PrepareRequest) {
  const offsetMm = edgeOffsetMm(edge);
  const round = linesRound(ink, { offsetMm, keepsHoles: art.keepsHoles, onProgress });
  const findings = round.flatMap(({ art: outlines, line }): ItemFinding[] => [
    // Nothing that was grown by so much is thinner than twice that.
    ...(offsetMm >= SLIVER_MM / 2 ? [] : sliversOf(line)).map(({ box, areaMm2 }): ItemFinding => ({
      of: 'sliver',
      box,
      amount: areaMm2,
    })),
    ...lostParts(outlines, offsetMm).map((box): ItemFinding => ({ of: 'lost', box })),
  ]);
  const rings = round.flatMap((r) => r.line);
  return { commands: rings.map((ring) => polyline([...ring, ...ring.slice(0, 1)])), findings };
}

const moveBox = (box: Box, by: Point<'page'>): Box => ({ ...box, left: box.left + by.x, bottom: box.bottom + by.y });

/** Findings that stand at a place, moved with the cell's corner. */
const moveFinding = (finding: ItemFinding, by: Point<'page'>): ItemFinding =>
  'box' in finding ? { ...finding, box: moveBox(finding.box, by) } : finding;

function lineFindings(lines: readonly CutLine[], artBoxes: readonly Box[]): readonly ItemFinding[] {
  const found = [
    ...doubledLines(lines),
    ...originalsUnderOffsets(lines),
    ...linesOffArt(lines, artBoxes, WIDEST_OFFSET_MM),
    ...specks(lines),
    ...letteringAmong(lines),
  ];
  const thin = lines
    .filter((line) => line.isClosed)
    .flatMap((line) => sliversOf(unionOf([line.points])))
    .map(({ box, areaMm2 }): ItemFinding => ({ of: 'sliver', box, amount: areaMm2 }));
  return [...found.map((f): ItemFinding => ({ of: 'lines', ...f })), ...thin];
}

/** What a drawing holds besides plain shapes, and text that is to be cut or printed. */
function contentFindings(artwork: Artwork, art: Drawing, printed: readonly ArtShape[]): readonly ItemFinding[] {
  const cutText = artwork.texts.filter((t) => !isPrinted(art, t)).map((t) => t.place);
  const artText = artwork.texts.filter((t) => isPrinted(art, t)).map((t) => t.place);
  const hard = printed.filter((s) => s.beyond.length > 0);
  const names = uniquely([...hard.flatMap((s) => s.beyond), ...artwork.others.map((o) => o.name)]);
  const places = uniquely([...hard.map((s) => s.place), ...artwork.others.map((o) => o.place)]).slice(0, 5);
  return [
    ...(cutText.length > 0 ? [{ of: 'text-cut' as const, places: cutText }] : []),
    ...(artText.length > 0 ? [{ of: 'text-art' as const, places: artText }] : []),
    ...(names.length > 0 ? [{ of: 'beyond' as const, names, places }] : []),
  ];
}

/** A cell that holds art and cut, and the move that puts its corner at the origin. */
function cellOf(artBox: Box, cutBox: Box | null) {
  const boxes = cutBox ? [artBox, cutBox] : [artBox];
  const left = Math.min(...boxes.map((b) => b.left));
  const bottom = Math.min(...boxes.map((b) => b.bottom));
  const widthMm = Math.max(...boxes.map((b) => b.left + b.width)) - left;
  const lengthMm = Math.max(...boxes.map((b) => b.bottom + b.height)) - bottom;
  return { cell: { widthMm, lengthMm }, by: { x: -left, y: -bottom } };
}

/** Natural size of a drawing's art: the box of its ink, or of its lines where it has none. */
export function naturalBox(artwork: Artwork, art: Drawing): Box | null {
  const printed = artwork.shapes.filter((s) => isPrinted(art, s));
  const ink = printed.flatMap((s) => inkOf(s));
  return ringsBox(ink.length > 0 ? ink : linesOf(artwork.shapes).map((l) => l.points));
}

function prepareDrawing(request: PrepareRequest, artwork: Artwork, art: Drawing): PreparedItem {
  const { item } = request;
  const own = naturalBox(artwork, art) ?? { left: 0, bottom: 0, width: item.widthMm, height: item.lengthMm };
  const toItem: Affine<'page', 'page'> = {
    xx: item.widthMm / own.width,
    xy: 0,
    yx: 0,
    yy: item.lengthMm / own.height,
    tx: (-own.left * item.widthMm) / own.width,
    ty: (-own.bottom * item.lengthMm) / own.height,
  };
  const moved = (shape: ArtShape): ArtShape => ({ ...shape, ...movedShape(shape, toItem) });
  const originals = artwork.shapes.filter((s) => isPrinted(art, s));
  const printed = originals.map(moved);
  // Enlarged, chords come as much farther from their curves.
  const flatnessMm = FLATNESS_MM / Math.max(1, toItem.xx, toItem.yy);
  const ink = originals.map((s) => inkOf(s, flatnessMm).map((ring) => ring.map((p) => apply(toItem, p))));
  const lines = linesOf(artwork.shapes.filter((s) => isCut(art, s)).map(moved));
  const scored = linesOf(artwork.shapes.filter((s) => isScored(art, s)).map(moved));
  const artBox: Box = { left: 0, bottom: 0, width: item.widthMm, height: item.lengthMm };
  const isOwn = art.cutFrom === 'lines';
  const drawn = isOwn
    ? {
        commands: lines.map((line) => polyline(closedPoints(line))),
        findings: lineFindings([...lines, ...scored], printedBoxes(printed)),
      }
    : outlineCut(ink, art, request);
  const scores = scored.map((line) => polyline(closedPoints(line)));
  const linePoints = [...drawn.commands, ...scores].flatMap((c) => c.flatMap((p) => p.points));
  const cutBox = linePoints.length > 0 ? lineBox({ points: linePoints }) : null;
  const { cell, by } = cellOf(artBox, cutBox);
  const place = { xx: 1, xy: 0, yx: 0, yy: 1, tx: by.x, ty: by.y } as Affine<'page', 'page'>;
  const share = stretchOf({ width: own.width, height: own.height }, { width: item.widthMm, height: item.lengthMm });
  return {
    id: item.id,
    cell,
    artBox: moveBox(artBox, by),
    cuts: drawn.commands.map((c) => mapCommands(place, c)),
    scores: scores.map((c) => mapCommands(place, c)),
    shapes: printed.map((s) => movedShape(s, place)),
    isRound: true,
    ownEdgeMm: isOwn ? measureOwnEdge(lines, unionOf(ink.flat())) : null,
    findings: [
      ...contentFindings(artwork, art, printed),
      ...drawn.findings.map((f) => moveFinding(f, by)),
      ...(drawn.commands.length === 0 ? [{ of: 'no-cut' as const }] : []),
      ...(printed.length === 0 ? [{ of: 'no-art' as const }] : []),
      ...(Math.abs(share) > STRETCH_SHARE ? [{ of: 'stretched' as const, share }] : []),
    ],
  };
}

const printedBoxes = (shapes: readonly ArtShape[]): readonly Box[] =>
  shapes.flatMap((s) => ringsBox(flatten(s.commands).map((p) => p.points)) ?? []);

function pictureFindings({ widthPx, heightPx }: Picture, widthMm: number, heightMm: number): readonly ItemFinding[] {
  const dpi = effectiveDpi({ widthPx, heightPx }, widthMm, heightMm);
  const least = Math.min(dpi.across, dpi.along);
  const share = stretchOf({ width: widthPx, height: heightPx }, { width: widthMm, height: heightMm });
  return [
    ...(least < LEAST_DPI ? [{ of: 'soft' as const, dpi: least }] : []),
    ...(Math.abs(share) > STRETCH_SHARE ? [{ of: 'stretched' as const, share }] : []),
  ];
}

function prepareBox(request: PrepareRequest, art: Exclude<ItemArt, { kind: 'drawing' }>): PreparedItem {
  const { item, edge } = request;
  const { cell, artBox, cuts } = plainCut(item, art.shape, art.cornerMm, edge);
  return {
    id: item.id,
    cell,
    artBox,
    cuts,
    scores: [],
    shapes: [],
    isRound: art.shape === 'ellipse',
    ownEdgeMm: null,
    findings: [
      ...(art.kind === 'picture' ? pictureFindings(art, item.widthMm, item.lengthMm) : [{ of: 'no-art' as const }]),
      ...(cuts.length === 0 ? [{ of: 'no-cut' as const }] : []),
    ],
  };
}

/** Everything turned over left to right inside its cell: work that is printed to be seen through its film. */
function mirrored(prepared: PreparedItem): PreparedItem {
  const map = mirrorIn(prepared.cell.widthMm);
  const over = (box: Box): Box => ({ ...box, left: prepared.cell.widthMm - box.left - box.width });
  return {
    ...prepared,
    artBox: over(prepared.artBox),
    cuts: prepared.cuts.map((c) => mapCommands(map, c)),
    scores: prepared.scores.map((c) => mapCommands(map, c)),
    shapes: prepared.shapes.map((s) => ({ ...s, commands: mapCommands(map, s.commands) })),
    findings: prepared.findings.map((f) => ('box' in f ? { ...f, box: over(f.box) } : f)),
  };
}

/** An item's cell, art and cut lines, with what is to be said about them. A drawing needs its artwork. */
export function prepareItem(request: PrepareRequest): PreparedItem {
  const { item, artwork, isMirrored } = request;
  const { art } = item;
  const prepared =
    art.kind === 'drawing' && artwork
      ? prepareDrawing(request, artwork, art)
      : prepareBox(request, art.kind === 'drawing' ? { kind: 'plain', shape: 'rectangle', cornerMm: 0 } : art);
  return isMirrored ? mirrored(prepared) : prepared;
}
