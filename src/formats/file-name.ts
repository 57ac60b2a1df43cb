/** Words as part of a file's name: small letters, figures and dashes. */
export const fileNamePart = (words: string): string => words.toLowerCase().replace(/[^a-z0-9]+/g, '-');
