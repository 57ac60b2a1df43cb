/** A stretch of a text and what takes its place; start = end only inserts. */
export interface Edit {
  readonly start: number;
  readonly end: number;
  readonly words: string;
}

/** A text being written anew, edit after edit. */
export interface Splicer {
  /** Edits come in the order of the text and do not overlap. */
  readonly take: (edit: Edit) => void;
  /** The whole text with the edits made. */
  readonly finished: () => string;
}

/** So many pieces are joined at a time: a million small ones kept apart would cost more than the text itself. */
const PIECES_AT_ONCE = 8192;

/** Joins many small texts, a few thousand at a time. */
export function joiner(): { readonly take: (words: string) => void; readonly joined: () => string } {
  const whole: string[] = [];
  let parts: string[] = [];
  return {
    take: (words) => {
      parts.push(words);
      if (parts.length < PIECES_AT_ONCE) return;
      whole.push(parts.join(''));
      parts = [];
    },
    joined: () => whole.join('') + parts.join(''),
  };
}

/** Writes a text anew with edits; everything between them stays as it is. */
export function splicer(text: string): Splicer {
  const out = joiner();
  let at = 0;
  return {
    take: ({ start, end, words }) => {
      if (start > at) out.take(text.slice(at, start));
      out.take(words);
      at = end;
    },
    finished: () => {
      out.take(text.slice(at));
      return out.joined();
    },
  };
}

/** The text with edits made that may come in any order. */
export function spliced(text: string, edits: readonly Edit[]): string {
  const out = splicer(text);
  for (const edit of [...edits].sort((a, b) => a.start - b.start)) out.take(edit);
  return out.finished();
}
