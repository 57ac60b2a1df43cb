import { generate, parse, walk, type CssNode, type Rule } from 'css-tree';
import { color } from 'd3';
import { fail, ok, type Result } from '@/core/result';
import { problem, type FileProblem } from '../cut-file/cut-file';
import type { SvgElement, SvgTree } from './svg-elements';

/** Properties that matter to where lines are and which they are. */
const LINE_PROPERTIES: ReadonlySet<string> = new Set(['stroke', 'fill', 'transform', 'clip-path', 'mask']);

interface StyleRule {
  readonly type: string | null;
  readonly classes: readonly string[];
  readonly id: string | null;
  readonly weight: number;
  readonly values: Readonly<Record<string, string>>;
}

export interface StyleSheet {
  /** What was looked for. */
  readonly properties: ReadonlySet<string>;
  readonly rules: readonly StyleRule[];
  /** Selectors of rules that set a colour and are not plain enough to be read. */
  readonly notUnderstood: readonly string[];
}

function valuesOf(rule: Rule, properties: ReadonlySet<string>): Record<string, string> {
  const values: Record<string, string> = {};
  walk(rule.block, (node: CssNode) => {
    if (node.type === 'Declaration' && properties.has(node.property)) values[node.property] = generate(node.value);
  });
  return values;
}

/** A selector of one element by type, classes and id; null for anything with relations or conditions. */
function simpleSelector(selector: CssNode): Omit<StyleRule, 'values'> | null {
  if (selector.type !== 'Selector') return null;
  const classes: string[] = [];
  let type: string | null = null;
  let id: string | null = null;
  for (const part of selector.children.toArray()) {
    if (part.type === 'ClassSelector') classes.push(part.name);
    else if (part.type === 'IdSelector') id = part.name;
    else if (part.type === 'TypeSelector') type = part.name === '*' ? null : part.name;
    else return null;
  }
  return { type, classes, id, weight: (id ? 100 : 0) + 10 * classes.length + (type ? 1 : 0) };
}

/** Every element is held against every rule: more than this no drawing program writes. */
const MOST_RULES = 2000;
const MOST_STYLE_CHARACTERS = 1_000_000;

/** Rules of a drawing's own style sheets, as far as they set what matters. */
export function readStyles(
  sheets: readonly string[],
  properties: ReadonlySet<string> = LINE_PROPERTIES,
): Result<StyleSheet, FileProblem> {
  if (sheets.reduce((sum, s) => sum + s.length, 0) > MOST_STYLE_CHARACTERS)
    return fail(problem('too-large', 'style', 'Its style sheets are larger than a megabyte.'));
  const rules: StyleRule[] = [];
  const notUnderstood: string[] = [];
  for (const sheet of sheets) {
    walk(parse(sheet, { onParseError: () => undefined }), (node: CssNode) => {
      if (node.type !== 'Rule') return;
      const values = valuesOf(node, properties);
      if (Object.keys(values).length === 0 || node.prelude.type !== 'SelectorList') return;
      for (const selector of node.prelude.children.toArray()) {
        const simple = simpleSelector(selector);
        if (simple) rules.push({ ...simple, values });
        else notUnderstood.push(generate(selector));
      }
    });
  }
  if (rules.length > MOST_RULES)
    return fail(problem('too-large', 'style', `Its style sheets hold more than ${MOST_RULES} rules for lines.`));
  return ok({ properties, rules, notUnderstood });
}

/** Declarations of a style attribute. */
function inlineValues(style: string, properties: ReadonlySet<string>): Readonly<Record<string, string>> {
  const values: Record<string, string> = {};
  for (const declaration of style.split(';')) {
    const colon = declaration.indexOf(':');
    const property = declaration.slice(0, Math.max(0, colon)).trim();
    if (properties.has(property))
      values[property] = declaration
        .slice(colon + 1)
        .replace('!important', '')
        .trim();
  }
  return values;
}

function matches(rule: StyleRule, element: SvgElement): boolean {
  if (rule.type !== null && rule.type !== element.name) return false;
  if (rule.id !== null && rule.id !== element.attributes.id) return false;
  if (rule.classes.length === 0) return true;
  const own = (element.attributes.class ?? '').split(/\s+/);
  return rule.classes.every((name) => own.includes(name));
}

/** Value of a property set on the element itself: style attribute, then style sheets by weight, then the attribute. */
export function ownValue(sheet: StyleSheet, element: SvgElement, property: string): string | undefined {
  const { style } = element.attributes;
  const inline = style === undefined ? undefined : inlineValues(style, sheet.properties)[property];
  if (inline !== undefined) return inline;
  let best: StyleRule | undefined;
  for (const rule of sheet.rules) {
    if (rule.values[property] === undefined || !matches(rule, element)) continue;
    if (!best || rule.weight >= best.weight) best = rule;
  }
  return best?.values[property] ?? element.attributes[property];
}

/** A colour as #rrggbb, whatever way it was written; words that are no colour stay as they are. */
export function colourName(value: string): string {
  const known = color(value.trim());
  return known ? known.formatHex() : value.trim().toLowerCase();
}

/** Stroke and fill of an element after inheritance; undefined where nothing sets it. */
interface Paint {
  readonly stroke: string | undefined;
  readonly fill: string | undefined;
}

/** The colour by which a program knows a line: its stroke, or its fill where it has no stroke. Null: neither is set. */
function paintName({ stroke, fill }: Paint): string | null {
  if (stroke !== undefined && stroke !== 'none') return colourName(stroke);
  if (fill === undefined) return null;
  return fill === 'none' ? 'none' : colourName(fill);
}

/** Colour of every element, in the tree's order; parents come before their children. */
export function coloursOf(tree: SvgTree, sheet: StyleSheet): readonly (string | null)[] {
  const paints: Paint[] = [];
  for (const element of tree.elements) {
    const above = paints[element.parent];
    const value = (property: 'stroke' | 'fill'): string | undefined => {
      const own = ownValue(sheet, element, property);
      return own === undefined || own === 'inherit' ? above?.[property] : own;
    };
    paints.push({ stroke: value('stroke'), fill: value('fill') });
  }
  return paints.map(paintName);
}
