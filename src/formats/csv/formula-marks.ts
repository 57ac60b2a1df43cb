/**
 * Where a spreadsheet would begin a formula: at the start of a cell, or after what it may take for the end of one, a semicolon, a tab or
 * a new line as its own language separates cells. Full-width signs count as well.
 * Source: OWASP, CSV Injection (the signs); the separators are common practice, no published source.
 */
const BEGINNING = String.raw`(^|[;\t\r\n])([ "']*)`;
const SIGN = String.raw`(?=[=+\-@\uff1d\uff0b\uff0d\uff20])`;

const TO_MARK = new RegExp(`${BEGINNING}${SIGN}`, 'g');
const MARKED = new RegExp(`${BEGINNING}'${SIGN}`, 'g');

/** Words with an apostrophe before everything in them that a spreadsheet would take for a formula. */
export const markFormulas = (words: string): string => words.replace(TO_MARK, "$1$2'").replace(/^(?='*[\t\r])/, "'");

/** Takes the apostrophes of `markFormulas` away again: `unmarkFormulas(markFormulas(x)) = x`. */
export const unmarkFormulas = (words: string): string => words.replace(/^'(?='*[\t\r])/, '').replace(MARKED, '$1$2');
