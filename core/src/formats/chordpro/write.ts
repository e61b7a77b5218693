import { keyName } from '../../harmony/key.js';
import type { Song } from '../../song/song.js';
import { meterName } from '../../time/meter.js';

/** A chord over the words that are sung from it on; either may be missing. A word that goes on with the next chord ends without a blank. */
export interface WordsUnder {
  readonly chord: string | null;
  readonly text: string;
}

/** A line of words with chords. */
export interface WordLine {
  /** The name of the section that it begins; null for any other line. */
  readonly section: string | null;
  readonly under: readonly WordsUnder[];
}

/** What would end a chord or a directive stands for itself as the sign that looks like it. */
const plain = (text: string): string => text.replaceAll('[', '(').replaceAll(']', ')').replaceAll('{', '(').replaceAll('}', ')');

/** Writes words with chords as ChordPro text. */
export function writeChordPro(
  song: Pick<Song, 'title' | 'composer' | 'key' | 'meters' | 'tempo'>,
  lines: readonly WordLine[],
): string {
  const head = [
    `{title: ${plain(song.title)}}`,
    ...(song.composer ? [`{composer: ${plain(song.composer)}}`] : []),
    `{key: ${keyName(song.key)}}`,
    `{time: ${meterName(song.meters[0])}}`,
    `{tempo: ${song.tempo}}`,
  ];
  const body = lines.flatMap(({ section, under }) => [
    ...(section === null ? [] : ['', `{comment: ${plain(section)}}`]),
    under
      .map(({ chord, text }) => (chord === null ? '' : `[${plain(chord)}]`) + plain(text))
      .join('')
      .trimEnd(),
  ]);
  return `${head.join('\n')}\n\n${body.join('\n').trim()}\n`;
}
