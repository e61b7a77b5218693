import type { Mark, Song } from '../song/song.js';
import type { Ticks } from '../time/ticks.js';

/** A sign over a note of the tune: its name as it is kept, the MusicXML tag and the names ABC has for it, the usual one first. */
interface Ornament {
  readonly name: string;
  readonly tag: string;
  readonly abc: readonly string[];
}

export const ORNAMENTS: readonly Ornament[] = [
  { name: 'trill', tag: 'trill-mark', abc: ['trill', 'trillh'] },
  { name: 'turn', tag: 'turn', abc: ['turn', 'irishroll', 'roll'] },
  { name: 'inverted turn', tag: 'inverted-turn', abc: ['invertedturn'] },
  { name: 'upper mordent', tag: 'inverted-mordent', abc: ['uppermordent', 'pralltriller'] },
  { name: 'lower mordent', tag: 'mordent', abc: ['lowermordent', 'mordent'] },
];

/** The mark that an ABC decoration stands for at a place, or null. */
export function markOfDecoration(decoration: string, at: Ticks): Mark | null {
  if (decoration === 'fermata') return { at, kind: 'fermata', text: null };
  const known = ORNAMENTS.find((o) => o.abc.includes(decoration));
  return known ? { at, kind: 'ornament', text: known.name } : null;
}

/** The ornaments of a song's tune by their places. */
export function ornamentsOf({ marks }: Pick<Song, 'marks'>): ReadonlyMap<Ticks, Ornament> {
  return new Map(
    marks.flatMap((m) => {
      const known = m.kind === 'ornament' ? ORNAMENTS.find((o) => o.name === m.text) : undefined;
      return known ? [[m.at, known] as const] : [];
    }),
  );
}
