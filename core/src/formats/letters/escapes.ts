/** Marks of letter lines that a backslash makes plain text. */
const MARKS = '\\%_|~-.';
/** Code points that are no characters, so that no text holds them, and a filler that keeps columns where they were. */
const FIRST = 0xfdd0;
const FILLER = '\u2060';

/** A typed line with its escaped marks put out of the way: it is as long as before, and none of them is taken for a mark. */
export function shield(line: string): string {
  return line
    .replace(/[\ufdd0-\ufdef\u2060]/g, ' ')
    .replace(/\\([\\%_|~.-])/g, (_, mark: string) => String.fromCharCode(FIRST + MARKS.indexOf(mark)) + FILLER);
}

/** Text of a shielded line as it was meant. */
export function unshield(text: string): string {
  return text.replaceAll(FILLER, '').replace(/[\ufdd0-\ufdd6]/g, (c) => MARKS[c.charCodeAt(0) - FIRST]);
}

/** Text as it may stand after a header such as "title:". */
export const escapeHeader = (text: string): string => text.replace(/[\\%]/g, '\\$&');

/** Text as it may stand on the grid of counts, its blanks kept together. */
export const escapeCell = (text: string): string =>
  text
    .replace(/[\\%_|~]/g, '\\$&')
    .replace(/^\.$|-$/, '\\$&')
    .replaceAll(' ', '~');
