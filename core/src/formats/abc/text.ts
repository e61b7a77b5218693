/** What means something besides itself in a header, in quotes, in a field between brackets, and under the notes. */
const MARKS = {
  header: /[%$\\]|&(?=#?\w+;)/g,
  chord: /[%$\\;]|&(?=#?\w+;)/g,
  inline: /[%$\\[\]]|&(?=#?\w+;)/g,
  words: /[%$\\~_*|-]|&(?=#?\w+;)/g,
} as const;

/** Text as it may stand in a place of ABC: what would be read as a mark there is written by its number. */
export function escapeAbc(text: string, place: keyof typeof MARKS): string {
  return text.replace(MARKS[place], (mark) => `\\u${mark.charCodeAt(0).toString(16).padStart(4, '0')}`);
}

/** Text as it was meant, after the parser: letters by number, and the percent signs that it keeps out of the way of its comments. */
export function unescapeAbc(text: string): string {
  return text
    .replaceAll('\u200b\uff05', '%')
    .replaceAll('\u00a0', ' ')
    .replace(/(?:\\u|&#x)([0-9a-f]{1,6});?|&#(\d{1,7});/gi, (all, hex?: string, decimal?: string) => {
      // "\u" takes four digits and no more.
      const short = all.startsWith('\\') && hex ? hex.slice(0, 4) : hex;
      const code = short ? parseInt(short, 16) : Number(decimal);
      if (code > 0x10ffff || (all.startsWith('\\') && short?.length !== 4)) return all;
      return String.fromCodePoint(code) + (all.startsWith('\\') ? all.slice(6) : '');
    });
}
