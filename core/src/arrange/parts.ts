import { partDifficulty } from '../difficulty/difficulty.js';
import { breathsOf, fermatasOf } from '../formats/pieces.js';
import { nameWithMelody } from '../harmony/naming.js';
import { parseChord } from '../harmony/symbol.js';
import type { Jump } from '../join/jumps.js';
import { withTops } from '../fills/sing-along.js';
import { togetherPoints, type Together } from '../join/together.js';
import type { VoicedChord } from '../left-hand/voice.js';
import { midiOf, nameOf } from '../pitch/pitch.js';
import type { RightHand } from '../right-hand/right-hand.js';
import { spanOf, type Stop } from '../song/decisions.js';
import type { MelodyNote, Song } from '../song/song.js';
import { barSpan, cutAt } from '../time/bars.js';
import type { Ticks } from '../time/ticks.js';
import type { Part, PartChord } from './arrangement.js';
import type { TimedChord } from './endings.js';
import type { LeftSide, RightSide } from './hands.js';
import type { Material } from './material.js';
import type { Settings } from './settings.js';
import { attacksOf } from './texture-plan.js';

/** The numbered parts with what both hands play in each, where they join, and how hard it is. */
export function partsOf(
  settings: Settings,
  material: Material,
  left: LeftSide,
  right: RightSide,
  jumps: readonly Jump[],
): Part[] {
  const { bars, stretches, ends, played, form, harmony, song } = material;
  const { fingerOf, places } = right.fingered;
  const withFinger = <T extends { at: Ticks; pitch: string }>(n: T) => ({ ...n, finger: fingerOf(n.at, n.pitch) });
  const stopsOf = stopsIn(song);
  const joins = togetherPoints(attacksOf(left.chords, left.dressed), withTops(played, right.interludes), bars);
  const cut = {
    melody: cutAt(
      played.map((n) => ({ ...withFinger(n), stops: stopsOf(n) })),
      ends,
    ),
    chords: cutAt(withHarmony(left, harmony, joins), ends),
    together: cutAt(joins, ends),
    under: cutAt(
      right.under.map((u) => ({ ...u, fingers: u.pitches.map((pitch) => fingerOf(u.at, pitch)) })),
      ends,
    ),
    rooms: cutAt(right.rooms, ends),
    fills: cutAt(right.fills.map(withFinger), ends),
    sung: cutAt(right.sung, ends),
    interludes: cutAt(right.interludes, ends),
    jumps: cutAt(jumps, ends),
    places: cutAt(
      places.map((p) => ({ ...p, at: p.start })),
      ends,
    ),
    words: cutAt(song.words ?? [], ends),
    reminders: cutAt(settings.reminders, ends),
    wide: cutAt(wideGrips(right.fingered, spanOf(settings.hands, 'right').comfortable), ends),
  };
  return stretches.map(({ start, end, reasons }, i): Part => {
    const [melody, chords, places] = [cut.melody[i], cut.chords[i], cut.places[i]];
    const load = {
      start,
      end,
      jumps: cut.jumps[i],
      leftSpan: spanOf(settings.hands, 'left'),
      tempo: song.tempo,
      key: song.key,
      // Under a sung tune the right hand's chords are what it plays; their top notes stand for them.
      melody:
        settings.playMode === 'sing-along'
          ? cut.sung[i].map((c) => ({ ...c, pitch: c.pitches[c.pitches.length - 1], lyric: null }))
          : melody,
      chords: chords.map((c) => (c.dressed ? { ...c, struck: c.dressed.notes } : c)),
      moves: places.slice(1).map((p) => p.first),
      stretches: cut.wide[i].length,
      inner: cut.under[i].reduce((sum, u) => sum + (u.inner ? u.pitches.length : 0), 0),
    };
    return {
      number: i + 1,
      label: form[i].label,
      name: settings.names.get(start) ?? null,
      start,
      end,
      reasons,
      melody,
      chords,
      places,
      bars: barSpan(bars, start, end),
      repeats: form[i].repeats,
      together: cut.together[i],
      under: cut.under[i],
      jumps: cut.jumps[i],
      rooms: cut.rooms[i],
      fills: cut.fills[i],
      sung: cut.sung[i],
      interludes: cut.interludes[i],
      words: cut.words[i],
      reminders: cut.reminders[i],
      difficulty: partDifficulty(load, bars),
    };
  });
}

/** Where time stops with a note of a song. */
function stopsIn(song: Song): (note: MelodyNote) => Stop[] {
  const [fermatas, breaths] = [fermatasOf(song), breathsOf(song)];
  return ({ at, length }) => [
    ...(fermatas.has(at) ? ['fermata' as const] : []),
    ...(breaths.has(at + length) ? ['breath' as const] : []),
  ];
}

/** Grips of the right hand past its comfortable span, and steps between notes of one place that are. */
function wideGrips({ grips, row }: RightHand, comfortable: number): { readonly at: Ticks }[] {
  const span = (pitches: readonly string[]) => Math.abs(midiOf(pitches[pitches.length - 1]) - midiOf(pitches[0]));
  return grips.filter((g, i) => {
    const before = grips[i - 1];
    const step =
      i > 0 && row[i].move === 'stay' ? span([before.pitches[before.pitches.length - 1], g.pitches[g.pitches.length - 1]]) : 0;
    return Math.max(span(g.pitches), step) > comfortable;
  });
}

/** Puts what the harmony says beside every strike of its chord. */
function withHarmony({ chords, dressed }: LeftSide, harmony: readonly TimedChord[], joins: readonly Together[]): PartChord[] {
  const meets = new Map(joins.map((j) => [j.at, j]));
  let h = 0;
  return chords.map((chord, i) => {
    const join = meets.get(chord.at);
    while (h + 1 < harmony.length && harmony[h + 1].at <= chord.at) h++;
    const { source, key, why, others, writtenAt } = harmony[h];
    return {
      ...chord,
      withMelody: join ? withMelody(chord, join) : null,
      source,
      key,
      chordWhy: why,
      otherChords: others,
      symbolAt: writtenAt,
      dressed: dressed[i],
    };
  });
}

function withMelody(chord: VoicedChord, join: Together): string | null {
  const note = join.melody ?? join.under;
  const parsed = parseChord(chord.symbol);
  if (note === null || parsed.kind !== 'chord') return null;
  return nameWithMelody(parsed, nameOf(note));
}
