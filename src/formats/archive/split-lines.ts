/** Longest line that an archive may hold: the largest kept file, twice as long in hexadecimal, and its wrapping. */
export const LONGEST_LINE_BYTES = 192 * 1024 * 1024;

const NEW_LINE = 0x0a;

/**
 * Whole lines of a stream of bytes, without their ends. A last piece without an end is given as it is.
 * @throws RangeError where a line is longer than `longest` bytes.
 */
export async function* splitLines(
  chunks: AsyncIterable<Uint8Array>,
  longest = LONGEST_LINE_BYTES,
): AsyncGenerator<Uint8Array> {
  let held: Uint8Array[] = [];
  let heldBytes = 0;
  const join = (last: Uint8Array): Uint8Array => {
    if (held.length === 0) return last;
    const whole = new Uint8Array(heldBytes + last.length);
    let at = 0;
    for (const piece of [...held, last]) {
      whole.set(piece, at);
      at += piece.length;
    }
    held = [];
    heldBytes = 0;
    return whole;
  };
  for await (const chunk of chunks) {
    let from = 0;
    for (let end = chunk.indexOf(NEW_LINE); end >= 0; end = chunk.indexOf(NEW_LINE, from)) {
      yield join(chunk.subarray(from, end));
      from = end + 1;
    }
    const rest = chunk.subarray(from);
    if (rest.length === 0) continue;
    held.push(rest);
    heldBytes += rest.length;
    if (heldBytes > longest) throw new RangeError('a line is too long');
  }
  if (heldBytes > 0) yield join(new Uint8Array(0));
}

/** A row's line apart: its table and the text of its object, as it stands. Null where it is no such line. */
export function rowOf(line: string): { readonly table: string; readonly object: string } | null {
  const found = /^\["([a-z_]{1,63})", /.exec(line);
  if (!found?.[1] || !line.endsWith('}]')) return null;
  return { table: found[1], object: line.slice(found[0].length, -1) };
}
