import type { Arrangement, Part } from '../arrange/arrangement.js';
import type { WordLine, WordsUnder } from '../formats/chordpro/write.js';
import type { SungWords } from '../song/song.js';
import { cutAt } from '../time/bars.js';

/** The words of a song with its chords over the very syllables, a line a part, the names of sections before them. */
export function wordLines({ parts, sections }: Pick<Arrangement, 'parts' | 'sections'>): WordLine[] {
  const names = new Map(sections.map((s) => [s.from, s.name]));
  // A chord that is struck early is sung where it is written.
  const chords = parts.flatMap((p) => p.chords.map(({ writtenAt, symbol, restruck }) => ({ at: writtenAt, symbol, restruck })));
  const cut = cutAt(
    chords.sort((a, b) => a.at - b.at),
    parts.map((p) => p.end),
  );
  return parts.map((part, i) => ({ section: names.get(part.number) ?? null, under: underChords(sungIn(part), cut[i]) }));
}

/** What is sung in a part: the words that its tune carries, or those of a song without one. */
function sungIn({ melody, words }: Part): readonly SungWords[] {
  const carried = melody.flatMap(({ at, lyric }) => (lyric ? [{ at, ...lyric }] : []));
  return carried.length > 0 ? carried : words;
}

/** The chords of a line where they change, each over what is sung from it on. */
function underChords(
  sung: readonly SungWords[],
  struck: readonly { readonly at: number; readonly symbol: string; readonly restruck: boolean }[],
): WordsUnder[] {
  const chords = struck.filter((c, i) => !c.restruck || i === 0);
  const under: { chord: string | null; text: string }[] = [];
  let s = 0;
  const sing = (until: number) => {
    for (; s < sung.length && sung[s].at < until; s++) {
      const text = sung[s].text + (sung[s].joins ? '' : ' ');
      const last = under.at(-1);
      if (last) last.text += text;
      else under.push({ chord: null, text });
    }
  };
  for (const { at, symbol } of chords) {
    sing(at);
    under.push({ chord: symbol, text: '' });
  }
  sing(Infinity);
  return under;
}
