/** Control characters, line ends, lone halves of surrogate pairs and code points that are no characters: none may stand in a name. */
const UNPRINTABLE =
  /[\u0000-\u001f\u007f-\u009f\u00ad\u200b\u2028\u2029\u2060\ufdd0-\ufdef\ufeff\ufff9-\uffff]|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g;

/**
 * Text as it may stand on one line of a screen, a sheet or a file: line ends and control characters become blanks, runs of blanks
 * become one, and what is longer than `most` characters is cut between two of them.
 */
export function oneLine(text: string, most = 200): string {
  // Most texts need nothing done, and a song has thousands.
  if (text.length <= most && PLAIN.test(text)) return text;
  const line = text.replace(UNPRINTABLE, ' ').replace(/\s+/g, ' ').trim();
  return line.length <= most ? line : cut(line, most);
}

const PLAIN = /^(?:[!-~\u00a1-\u00ac\u00ae-\u024f]+(?: [!-~\u00a1-\u00ac\u00ae-\u024f]+)*)?$/;

/** At most `most` code units, no character cut in half. */
function cut(text: string, most: number): string {
  const short = text.slice(0, most);
  const last = short.charCodeAt(short.length - 1);
  return (last >= 0xd800 && last <= 0xdbff ? short.slice(0, -1) : short).trim();
}
