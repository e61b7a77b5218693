import type { Part, PartChord } from '../arrange/arrangement.js';
import type { BendFact } from '../fills/bend.js';
import { CLOSING } from '../fills/close.js';
import { grouped } from '../lists/grouped.js';
import { midiOf, nameOf, type NoteName, type Pitch } from '../pitch/pitch.js';
import { countAt, countText } from '../time/counts.js';
import { barAt, offsetInBar, placeOf, type Bar, type Place } from '../time/bars.js';

/** The accompaniment of a part as it is taught once the block chords hold. */
export interface TaughtPattern {
  /** What it is called: "bass, then chord". */
  readonly title: string;
  /** The chord over which it is shown. */
  readonly symbol: string;
  /** What is struck, count by count, with the fingers bottom-up. */
  readonly strikes: readonly PatternStrike[];
  /** Other chords of the part that it lies over in the same way. */
  readonly over: readonly string[];
  /** Where it is cut or bent, each place with why. */
  readonly cut: readonly { readonly symbol: string; readonly place: Place; readonly facts: readonly BendFact[] }[];
}

interface PatternStrike {
  readonly count: string;
  readonly notes: readonly NoteName[];
  readonly pitches: readonly Pitch[];
  readonly fingers: readonly number[];
}

type Dressed = PartChord & { readonly dressed: NonNullable<PartChord['dressed']> };

/** The pattern of a part, shown over the first chord that has it whole; null where the chords are played as they are voiced. */
export function patternOf(part: Pick<Part, 'chords'>, bars: readonly Bar[]): TaughtPattern | null {
  // The low octave that closes a song is no pattern.
  const dressed = part.chords.filter((c): c is Dressed => c.dressed !== null && c.dressed.texture !== CLOSING);
  if (dressed.length === 0) return null;
  const strikesOf = (c: Dressed) => new Set(c.dressed.notes.map((n) => n.at)).size;
  const whole = dressed.filter((c) => c.dressed.bends.length === 0);
  const candidates = whole.length > 0 ? whole : dressed;
  const most = Math.max(...candidates.map(strikesOf));
  const shown = candidates.find((c) => strikesOf(c) === most) as Dressed;
  const named = (c: Dressed) => c.dressed.texture === shown.dressed.texture;
  const cut = dressed.filter(named).flatMap((c) => {
    const short = c.length < shown.length && strikesOf(c) < most;
    const facts: BendFact[] = [...c.dressed.bends, ...(short ? [{ code: 'bend.short', symbol: c.symbol } as const] : [])];
    return facts.length === 0 ? [] : [{ symbol: c.symbol, place: placeOf(bars, c.at), facts }];
  });
  const cutPlaces = new Set(cut.map((c) => `${c.place.bar} ${c.place.count}`));
  const alike = dressed.filter((c) => {
    const { bar, count } = placeOf(bars, c.at);
    return named(c) && c.symbol !== shown.symbol && !cutPlaces.has(`${bar} ${count}`);
  });
  return {
    title: shown.dressed.title,
    symbol: shown.symbol,
    strikes: strikesIn(shown, bars),
    over: [...new Set(alike.map((c) => c.symbol))],
    cut,
  };
}

function strikesIn({ dressed }: Dressed, bars: readonly Bar[]): PatternStrike[] {
  const notes = dressed.notes.map((n, i) => ({ ...n, finger: dressed.fingers[i] }));
  return [...grouped(notes, (n) => n.at)]
    .sort(([a], [b]) => a - b)
    .map(([at, struck]) => {
      const bar = barAt(bars, at);
      const row = struck.sort((a, b) => midiOf(a.pitch) - midiOf(b.pitch));
      return {
        count: countText(countAt(offsetInBar(bar, at), bar.meter)),
        notes: row.map((n) => nameOf(n.pitch)),
        pitches: row.map((n) => n.pitch),
        fingers: row.map((n) => n.finger),
      };
    });
}
