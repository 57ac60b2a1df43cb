import { valueOf, type DxfFile } from './dxf-groups';
import { itemsOf, type DxfItem } from './dxf-items';

/** Lines that a block shows, gathered by colour and layer: where they lie is not followed. */
export interface Shown {
  readonly colour: string;
  readonly layer: string;
  readonly count: number;
}

/** What lies on this layer of a block takes the layer that the block is inserted on. */
const INHERITS = '0';

/** Blocks in blocks in blocks: deeper no drawing goes, and what lies there is not looked at. */
const MOST_DEEP = 64;

type Inside = Map<string, Shown>;

function add(inside: Inside, { colour, layer, count }: Shown): void {
  const key = JSON.stringify([colour, layer]);
  inside.set(key, { colour, layer, count: count + (inside.get(key)?.count ?? 0) });
}

/**
 * What inserted blocks show, blocks inside them too. Each block is looked into once, however often it is inserted; a block
 * that shows itself shows nothing more.
 */
export function shownBy(file: DxfFile): (insert: DxfItem) => Iterable<Shown> {
  const known = new Map<string, Inside>();
  /** Blocks that are being looked into. */
  const open = new Set<string>();
  const insideOf = (name: string, deep: number): Inside => {
    const found = known.get(name);
    if (found) return found;
    const inside: Inside = new Map();
    if (deep > MOST_DEEP || open.has(name)) return inside;
    open.add(name);
    for (const item of itemsOf(file, file.blocks.get(name) ?? [])) {
      if (item.record.type === 'INSERT') for (const shown of shownIn(item, deep + 1)) add(inside, shown);
      else add(inside, { colour: item.colour, layer: item.layer, count: 1 });
    }
    open.delete(name);
    known.set(name, inside);
    return inside;
  };
  function* shownIn(insert: DxfItem, deep = 0): Generator<Shown> {
    for (const shown of insideOf(valueOf(insert.record, 2) ?? '', deep).values())
      yield shown.layer === INHERITS ? { ...shown, layer: insert.layer } : shown;
  }
  return (insert) => shownIn(insert);
}
