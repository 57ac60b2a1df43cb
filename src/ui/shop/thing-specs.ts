import { ACTS_ON, SCALES_OFFSET, SETTING_KINDS, SETTING_UNITS } from '@/core/setting/machine-setting';
import { KNOWS_CUT_BY, MARK_KINDS, MARK_USE_WORDS, MARK_USES, MARKS_PLACED_BY, OPENS } from '@/core/shop/words';
import { MARK_KIND_WORDS } from '@/core/shop/mark-kinds';
import { UNIT_SYSTEMS } from '@/core/units/length';
import type { ThingKind } from '@/contracts/shop';

/** Values of a thing's fields, by name, as a form holds them. */
export type Values = Readonly<Record<string, unknown>>;

export interface Option {
  readonly value: string;
  readonly label: string;
}

/** One field of a thing, in trade words. */
export type FieldSpec =
  | { readonly kind: 'text' | 'text-or-none'; readonly name: string; readonly label: string; readonly hint?: string }
  | {
      readonly kind: 'length' | 'length-or-none';
      readonly name: string;
      readonly label: string;
      readonly hint?: string;
    }
  | {
      readonly kind: 'number' | 'number-or-none';
      readonly name: string;
      readonly label: string;
      readonly hint?: string;
    }
  | { readonly kind: 'yes-no'; readonly name: string; readonly label: string; readonly hint?: string }
  | {
      readonly kind: 'choice';
      readonly name: string;
      readonly label: string;
      readonly hint?: string;
      readonly options: readonly Option[];
      /** Values that are not text: told by their JSON. */
      readonly isJson?: boolean;
    }
  | {
      readonly kind: 'choices';
      readonly name: string;
      readonly label: string;
      readonly hint?: string;
      readonly options: readonly Option[];
    };

const plain = (values: readonly string[]): readonly Option[] =>
  values.map((value) => ({ value, label: value.replaceAll('_', ' ').replaceAll('-', ' ') }));

const named = (words: Readonly<Record<string, string>>): readonly Option[] =>
  Object.entries(words).map(([value, label]) => ({ value, label }));

const text = (name: string, label: string, hint?: string): FieldSpec => ({
  kind: 'text',
  name,
  label,
  ...(hint ? { hint } : {}),
});
const length = (name: string, label: string, hint?: string): FieldSpec => ({
  kind: 'length',
  name,
  label,
  ...(hint ? { hint } : {}),
});

const FILE_AXES = named({
  '+x': 'to +x of the file',
  '-x': 'to \u2212x',
  '+y': 'to +y of the file',
  '-y': 'to \u2212y',
});

/** The fields of each thing in the order in which a shop hand would tell them. `marks`: the shop's own schemes. */
export function fieldsOf(kind: ThingKind, marks: readonly Option[]): readonly FieldSpec[] {
  const scheme = (label: string): FieldSpec => ({
    kind: 'choice',
    name: 'markSchemeId',
    label,
    options: [
      { value: 'null', label: 'not told' },
      ...marks.map((m) => ({ value: JSON.stringify(m.value), label: m.label })),
    ],
    isJson: true,
  });
  return SPECS[kind](scheme);
}

const SPECS: Readonly<Record<ThingKind, (scheme: (label: string) => FieldSpec) => readonly FieldSpec[]>> = {
  person: () => [
    text('name', 'Name'),
    { kind: 'choice', name: 'unitSystem', label: 'Lengths in', options: plain(UNIT_SYSTEMS) },
    text('timeZone', 'Time zone', 'such as Europe/Oslo or UTC'),
  ],
  printer: () => [
    text('name', 'Name'),
    { kind: 'number', name: 'dotPitchMm', label: 'Distance of two dots, mm', hint: '0.042 at 600 to the inch' },
    length('marginLeftMm', 'Edge left white, left'),
    length('marginRightMm', 'right'),
    length('marginTopMm', 'at the end that leaves first'),
    length('marginBottomMm', 'at the end that leaves last'),
  ],
  printMode: () => [
    text('name', 'Name'),
    text('tray', 'Tray or feed'),
    text('quality', 'Quality'),
    {
      kind: 'yes-no',
      name: 'isBorderless',
      label: 'Borderless',
      hint: 'Borderless printing enlarges the page: correct it apart.',
    },
    text('page', 'Page'),
    length('pageWidthMm', 'Width of the page'),
    length('pageLengthMm', 'Length of the page'),
  ],
  program: (scheme) => [
    text('name', 'Name'),
    { kind: 'choices', name: 'opens', label: 'Opens', options: plain(OPENS) },
    { kind: 'choice', name: 'marksPlacedBy', label: 'Marks are placed by', options: plain(MARKS_PLACED_BY) },
    { kind: 'choice', name: 'knowsCutBy', label: 'Knows a cut line by', options: plain(KNOWS_CUT_BY) },
    { kind: 'text-or-none', name: 'spotInkName', label: 'Spot ink', hint: 'letter for letter; empty when none' },
    { kind: 'yes-no', name: 'canCutAgain', label: 'Can cut a second time on the same print' },
    {
      kind: 'choice',
      name: 'importScale',
      label: 'Takes a drawing\u2019s numbers for',
      options: named({ '96': '96 to the inch', '72': '72 to the inch', asks: 'it asks' }),
    },
    scheme('Marks it prints'),
    { kind: 'length-or-none', name: 'largestWidthMm', label: 'Widest drawing', hint: 'empty when not known' },
    { kind: 'length-or-none', name: 'largestLengthMm', label: 'Longest drawing', hint: 'empty when not known' },
    length('bleedDefaultMm', 'Bleed it adds by itself'),
    { kind: 'yes-no', name: 'printsUnstroked', label: 'Prints lines without a stroke' },
    { kind: 'yes-no', name: 'holdsCutData', label: 'Holds cut data until the print comes back' },
  ],
  cutter: (scheme) => [
    text('name', 'Name'),
    {
      kind: 'choice',
      name: 'feeds',
      label: 'Material goes',
      options: named({ away: 'in, away from you (mat or sheet)', towards: 'out, towards you (roll)' }),
    },
    scheme('Marks it is told to read'),
    {
      kind: 'choice',
      name: 'markUse',
      label: 'It uses its marks for',
      options: MARK_USES.map((value) => ({ value, label: MARK_USE_WORDS[value] })),
    },
    {
      kind: 'choice',
      name: 'fileFormat',
      label: 'Plain cut files',
      options: named({ none: 'it takes none', hpgl: 'HPGL', svg: 'SVG', dxf: 'DXF' }),
    },
    { kind: 'choice', name: 'fileAcross', label: 'To the right of the feed runs', options: FILE_AXES },
    { kind: 'choice', name: 'fileAlong', label: 'Along the feed runs', options: FILE_AXES },
    { kind: 'number', name: 'hpglTool', label: 'Tool number in HPGL' },
    { kind: 'yes-no', name: 'hpglOutlineFirst', label: 'Follow the outline with the tool up first' },
    length('spareFrontMm', 'Spare material wanted before the first marks'),
    length('spareRearMm', 'after the last'),
    {
      kind: 'length-or-none',
      name: 'rollerWidthMm',
      label: 'Width of the rollers at the edges',
      hint: 'empty when it has none, or not known',
    },
    { kind: 'length-or-none', name: 'rollerFromEdgeMm', label: 'and how far in from the edge they stand' },
    {
      kind: 'length-or-none',
      name: 'knifeFromPenAcrossMm',
      label: 'Knife from the pen\u2019s line, across',
      hint: 'for checks drawn with a pen; as read with the arrow along the feed, plus to the right; empty when not measured',
    },
    { kind: 'length-or-none', name: 'knifeFromPenAlongMm', label: 'and along', hint: 'plus the way the arrow points' },
  ],
  markScheme: () => [
    text('name', 'Name'),
    {
      kind: 'choice',
      name: 'kind',
      label: 'Kind',
      options: MARK_KINDS.map((value) => ({ value, label: MARK_KIND_WORDS[value].title })),
    },
    length('insetMm', 'From the page\u2019s edge'),
    length('sizeMm', 'Size'),
    length('keepOutMm', 'Room that must stay empty round them'),
    length('edgeMinMm', 'Least distance from the edge for the eye'),
    text('leadingMark', 'Mark that shows which end leads'),
    text('readingOrder', 'Order of reading'),
  ],
  material: () => [
    text('name', 'Name'),
    text('finish', 'Finish', 'matt, gloss, laminated ...'),
    { kind: 'choice', name: 'form', label: 'Comes as', options: plain(['sheet', 'roll']) },
    { kind: 'length-or-none', name: 'widthMm', label: 'Width' },
    {
      kind: 'length-or-none',
      name: 'printableWidthMm',
      label: 'Printable width',
      hint: 'as the machine reports it, less than the roll',
    },
    { kind: 'length-or-none', name: 'thicknessMm', label: 'Thickness' },
    { kind: 'choice', name: 'colour', label: 'Colour', options: plain(['white', 'light', 'dark', 'metallic']) },
    { kind: 'choice', name: 'transparency', label: 'Light', options: plain(['opaque', 'translucent', 'clear']) },
    text('carrier', 'Carrier', 'liner, mat, none'),
    { kind: 'number', name: 'dryingHours', label: 'Hours to wait after printing' },
    {
      kind: 'number-or-none',
      name: 'thermalPerK',
      label: 'Growth per kelvin',
      hint: 'such as 0.00007; empty when not known',
    },
    text('thermalSource', 'where that figure is from'),
    { kind: 'number-or-none', name: 'humidityPerPercent', label: 'Growth per percent of humidity' },
    text('humiditySource', 'where that figure is from'),
    text('cost', 'Cost', 'as you reckon it'),
  ],
  setting: () => [
    text('displayName', 'Name on the display'),
    {
      kind: 'choice',
      name: 'kind',
      label: 'How it is set',
      options: named({
        typed: 'typed at any time',
        wizard: 'a line of its wizard is picked, the value stays hidden',
        after_test_print: 'typed only right after its own test print',
      }).filter((o) => SETTING_KINDS.some((k) => k === o.value)),
    },
    { kind: 'choice', name: 'actsOn', label: 'Acts on', options: plain(ACTS_ON) },
    { kind: 'choice', name: 'unit', label: 'Unit', options: plain(SETTING_UNITS) },
    {
      kind: 'number-or-none',
      name: 'unitSize',
      label: 'Size of one machine step, or the nominal length',
      hint: 'only for those two units; mm, a ratio, or rad',
    },
    { kind: 'number', name: 'step', label: 'Smallest change' },
    { kind: 'number', name: 'minValue', label: 'From' },
    { kind: 'number', name: 'maxValue', label: 'to' },
    {
      kind: 'choice',
      name: 'sense',
      label: 'Plus moves the cut',
      isJson: true,
      options: [
        { value: 'null', label: 'not known: find it out' },
        { value: '1', label: 'right, towards the leading edge, larger, counter-clockwise' },
        { value: '-1', label: 'the other way' },
      ],
    },
    {
      kind: 'choice',
      name: 'entry',
      label: 'It asks for',
      options: named({ new_value: 'the new value', change: 'the change' }),
    },
    {
      kind: 'choice',
      name: 'combine',
      label: 'What is typed',
      options: named({ replaces: 'replaces the old value', adds: 'is added to it' }),
    },
    {
      kind: 'choice',
      name: 'pivot',
      label: 'Turns and scales about',
      options: named({ centre: 'the middle', first_mark: 'the first mark' }),
    },
    { kind: 'choice', name: 'scalesOffset', label: 'Scales the offset too', options: plain(SCALES_OFFSET) },
    text('pressThis', 'Press this', 'what leads to it'),
    text('notThat', 'and not that'),
  ],
};
