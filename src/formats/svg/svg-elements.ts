import { SaxesParser } from 'saxes';
import { fail, ok, type Result } from '@/core/result';
import { MOST_CHARACTERS, MOST_DEPTH, MOST_ELEMENTS, problem, type FileProblem } from '../cut-file/cut-file';

/** One element with its place in the text, so that a change touches nothing else. */
export interface SvgElement {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  /** Index of the element it stands in; -1 for the root. */
  readonly parent: number;
  /** Of the start tag, from "<" to after ">". */
  readonly start: number;
  readonly end: number;
  /** Where its end tag begins and ends; none for a self-closing one. */
  closing: readonly [number, number] | null;
}

export interface SvgTree {
  readonly text: string;
  readonly elements: readonly SvgElement[];
  /** Text of all style sheets in the drawing. */
  readonly styles: readonly string[];
}

const MOST_ENTITIES = 100;
const ENTITY = /<!ENTITY\s+([\w.-]+)\s+("[^"<&%]*"|'[^'<&%]*')\s*>/g;
const OTHER_DECLARATION = /<!(?:ELEMENT|ATTLIST|NOTATION|ENTITY)\b/;

/** Plain text entities of the drawing's own document type; anything else there is refused. */
function entitiesOf(doctype: string): Result<Readonly<Record<string, string>>, FileProblem> {
  const found = [...doctype.matchAll(ENTITY)];
  const rest = doctype.replace(ENTITY, '');
  if (found.length > MOST_ENTITIES || OTHER_DECLARATION.test(rest))
    return fail(
      problem('not-understood', 'document type', 'It declares more than plain text entities: save it without a DTD.'),
    );
  return ok(Object.fromEntries(found.map((m) => [m[1] ?? '', (m[2] ?? '').slice(1, -1)])));
}

interface Draft {
  readonly elements: SvgElement[];
  readonly open: number[];
  readonly styles: string[];
}

/** Thrown inside the parser's callbacks to stop it, caught below. */
class Stop extends Error {
  constructor(readonly reason: FileProblem) {
    super(reason.words);
  }
}

const localName = (name: string, prefix: string): string =>
  prefix !== '' && name.startsWith(prefix) ? name.slice(prefix.length) : name;

function openElement(draft: Draft, element: SvgElement): void {
  if (draft.elements.length >= MOST_ELEMENTS)
    throw new Stop(problem('too-large', 'elements', `More than ${MOST_ELEMENTS} elements.`));
  if (draft.open.length >= MOST_DEPTH)
    throw new Stop(problem('too-large', 'nesting', `Groups stand more than ${MOST_DEPTH} deep in each other.`));
  draft.elements.push(element);
  draft.open.push(draft.elements.length - 1);
}

function closeElement(draft: Draft, text: string, position: number, isSelfClosing: boolean): void {
  const index = draft.open.pop();
  const element = index === undefined ? undefined : draft.elements[index];
  if (element && !isSelfClosing) element.closing = [text.lastIndexOf('<', position - 1), position];
}

function watch(parser: SaxesParser, draft: Draft, text: string): void {
  let prefix = '';
  let start = 0;
  parser.on('error', (error) => {
    throw new Stop(problem('not-a-drawing', `line ${parser.line}`, error.message));
  });
  parser.on('doctype', (doctype) => {
    const entities = entitiesOf(doctype);
    if (!entities.ok) throw new Stop(entities.error);
    Object.assign(parser.ENTITIES, entities.value);
  });
  parser.on('opentagstart', () => {
    start = text.lastIndexOf('<', parser.position - 1);
  });
  parser.on('opentag', (tag) => {
    if (draft.elements.length === 0) prefix = tag.name.includes(':') ? `${tag.name.split(':')[0] ?? ''}:` : '';
    openElement(draft, {
      name: localName(tag.name, prefix),
      attributes: tag.attributes,
      parent: draft.open.at(-1) ?? -1,
      start,
      end: parser.position,
      closing: null,
    });
  });
  parser.on('closetag', (tag) => {
    closeElement(draft, text, parser.position, tag.isSelfClosing);
  });
  const style = (words: string): void => {
    const here = draft.elements[draft.open.at(-1) ?? -1];
    if (here?.name === 'style') draft.styles.push(words);
  };
  parser.on('text', style);
  parser.on('cdata', style);
}

/**
 * Elements of an SVG with their places in the text. Namespaces of the drawing program keep their prefix, so that only
 * SVG's own elements have plain names.
 * @returns the tree, or why this text is no drawing we read: with the line.
 */
export function readSvgTree(source: string): Result<SvgTree, FileProblem> {
  if (source.length > MOST_CHARACTERS) return fail(problem('too-large', 'file', 'More than 64 MB.'));
  // A byte order mark stays in the text: it shifts no place, because positions are counted in the text as it is.
  const parser = new SaxesParser({ position: true });
  const draft: Draft = { elements: [], open: [], styles: [] };
  watch(parser, draft, source);
  try {
    parser.write(source).close();
  } catch (error) {
    if (error instanceof Stop) return fail(error.reason);
    throw error;
  }
  if (draft.elements[0]?.name !== 'svg')
    return fail(problem('not-a-drawing', 'root', 'The file is not an SVG drawing: its root is not "svg".'));
  return ok({ text: source, elements: draft.elements, styles: draft.styles });
}

/** Where one attribute's value stands in the text, quotes left out; null when the element has none. */
export function attributeSpan(tree: SvgTree, element: SvgElement, name: string): readonly [number, number] | null {
  const tag = tree.text.slice(element.start, element.end);
  const attribute = /([^\s=/<>"']+)\s*=\s*(?:"([^"]*)"|'([^']*)')/g;
  for (const found of tag.matchAll(attribute)) {
    if (found[1] !== name) continue;
    const length = (found[2] ?? found[3] ?? '').length;
    const valueEnd = element.start + found.index + found[0].length - 1;
    return [valueEnd - length, valueEnd];
  }
  return null;
}

/** Where a new attribute goes: right behind the element's name. */
export function afterName(tree: SvgTree, element: SvgElement): number {
  const name = /^<[^\s/>]+/.exec(tree.text.slice(element.start, element.end));
  return element.start + (name?.[0].length ?? 1);
}
