/** A stretch of a text and what takes its place; start = end only inserts. */
export interface Edit {
  readonly start: number;
  readonly end: number;
  readonly words: string;
}

/** The text with its edits made; everything between them stays as it is. Edits do not overlap. */
export function spliced(text: string, edits: readonly Edit[]): string {
  const sorted = [...edits].sort((a, b) => a.start - b.start);
  const parts: string[] = [];
  let at = 0;
  for (const edit of sorted) {
    parts.push(text.slice(at, edit.start), edit.words);
    at = edit.end;
  }
  parts.push(text.slice(at));
  return parts.join('');
}
