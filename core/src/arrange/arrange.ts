import { nameWithMelody } from '../harmony/naming.js';
import { parseChord } from '../harmony/symbol.js';
import { hardestOf, partDifficulty } from '../difficulty/difficulty.js';
import { divide } from '../divide/divide.js';
import { findRepeats } from '../divide/repeats.js';
import { findSections } from '../divide/sections.js';
import { lowOctave, tempoCourse, withLastTouch } from '../fills/close.js';
import { dynamicMarks, loudnessOf, type LoudStretch } from '../fills/dynamics.js';
import { pedalPoints } from '../fills/pedal.js';
import { chordsForVoice } from '../fills/sing-along.js';
import { HELD } from '../fills/texture.js';
import { harmonyUnder } from '../fills/harmony.js';
import { leftJumps, rightJumps } from '../join/jumps.js';
import { togetherPoints, type Together } from '../join/together.js';
import { blockStrikes } from '../left-hand/strikes.js';
import { chordPlaces } from '../left-hand/timing.js';
import { voiceLeftHand, type VoicedChord } from '../left-hand/voice.js';
import { midiOf, nameOf } from '../pitch/pitch.js';
import { fingerRightHand, type RightHand } from '../right-hand/right-hand.js';
import { notesUnderTune } from '../right-hand/under-melody.js';
import { spanOf, type Document } from '../song/decisions.js';
import { wishAt } from '../song/edits.js';
import { chordSpans, type Song } from '../song/song.js';
import { barSpan, layBars } from '../time/bars.js';
import type { Ticks } from '../time/ticks.js';
import type { Arrangement, Part, PartChord, ScoreNote } from './arrangement.js';
import { partFinder } from './finding.js';
import { examine } from './findings.js';
import { harmonise, type HarmonisedChord } from './harmonise.js';
import { withEndings, type TimedChord } from './endings.js';
import { levelAt, plays } from './layers.js';
import { chordsWithin } from './levels.js';
import { fitTune, playedTune, sayChords, sayEndings } from './resolve.js';
import { besideFills, keptFills, roomsOf } from './rooms.js';
import { asStruck, attacksOf, dressLeftHand } from './texture-plan.js';
import { wishesOf } from './wishes.js';

/**
 * Computes the arrangement of a document: parts, voicings, fingers, joins, difficulty, score and findings. Pure and
 * deterministic; the time it takes grows linearly with the song.
 */
export function arrange(doc: Document): Arrangement {
  const bars = layBars(doc.song);
  const { hands, choices } = doc;
  const { tempo } = doc.song;
  const { written, findings: fitted } = fitTune(doc, bars);
  const tuneful: Song = { ...doc.song, melody: written };
  const stretches = divide(tuneful, bars, choices);
  const { played, findings: moved } = playedTune(doc, written, stretches, bars);
  const ends = stretches.map((s) => s.end);
  const found = harmonise(doc, written, bars, ends);
  const ended = withEndings(doc, timed(doc, chordsWithin(doc, found), played, bars), stretches, played, bars);
  const harmony = ended.chords;
  const song: Song = { ...doc.song, melody: played, chords: harmony.map(({ at, symbol }) => ({ at, symbol })) };
  const spans = chordSpans(song).map((span, i) => ({ ...span, writtenAt: harmony[i].writtenAt }));
  const starts = stretches.map((s) => s.start);
  const held = { at: (at: Ticks) => wishAt(doc, at, 'texture') === HELD && plays(doc, 'texture'), starts };
  const strikes = blockStrikes(spans, bars, held).filter((s) => levelAt(doc, s.at) !== 'tune');
  const voiced = voiceLeftHand(strikes, played, wishesOf(doc, spans));
  const { close, way } = choices;
  const touched = withLastTouch(voiced.chords, close.touch, strikes.at(-1)?.beat ?? 1);
  const left = { ...voiced, chords: way === 'outline' ? touched.map(lowestOf) : touched };
  const hung = way === 'arranged' ? notesUnderTune(left.chords, played, hands, bars) : [];
  const sounding = [...played, ...hung.flatMap((u) => u.pitches.map((pitch) => ({ at: u.at, length: u.length, pitch })))].sort(
    (a, b) => a.at - b.at,
  );
  const dressed = dressLeftHand(doc, left.chords, {
    ...{ bars, right: sounding, hands, key: song.key },
    phrases: starts,
    tempo,
  });
  if (close.touch === 'octave' && way === 'arranged') closeLow(dressed, left.chords, hands);
  const struck = asStruck(left.chords, dressed);
  const rooms = way === 'arranged' ? roomsOf(doc, stretches, played, struck, bars, song.key) : [];
  const fills = keptFills(doc, rooms);
  const added = !plays(doc, 'harmony')
    ? []
    : harmonyUnder({
        ...{ tune: played, chords: struck, bars, hands, ends },
        taken: new Set(hung.map((u) => u.at)),
        wishAt: (at) => wishAt(doc, at, 'harmony'),
      });
  const under = besideFills(added.length === 0 ? hung : [...hung, ...added].sort((a, b) => a.at - b.at), fills);
  const together = togetherPoints(attacksOf(left.chords, dressed), played, bars);
  const right = fingerRightHand({
    ...{ tune: played, under, fills, hands, tempo, fingers: choices.fingers, key: song.key },
    phrases: starts,
  });
  const form = findRepeats({ ...song, melody: written }, stretches, chordSpans({ ...song, chords: found }));
  const names = new Map(choices.names.map((n) => [n.at, n.name]));
  const jumps = [...leftJumps(left.chords, tempo), ...rightJumps(right.places, tempo)].sort((a, b) => a.at - b.at);
  const fingered = played.map((n) => ({ ...n, finger: right.fingerOf(n.at, n.pitch) }));
  const wide = wideGrips(right, spanOf(hands, 'right').comfortable);
  const sung = way === 'sing-along' ? chordsForVoice(left.chords, hands) : [];
  const [roomsIn, fillsIn, sungIn] = [
    sliceBy(rooms),
    sliceBy(fills.map((f) => ({ ...f, finger: right.fingerOf(f.at, f.pitch) }))),
    sliceBy(sung),
  ] as const;
  const [notesOf, chordsOf, joinsOf, underOf, jumpsOf] = [
    sliceBy(fingered),
    sliceBy(withHarmony(left.chords, harmony, together, dressed)),
    sliceBy(together),
    sliceBy(under),
    sliceBy(jumps),
  ] as const;
  const placesOf = sliceBy(right.places.map((p) => ({ ...p, at: p.start })));
  const wideOf = sliceBy(wide);
  const leftSpan = spanOf(hands, 'left');
  const parts = stretches.map(({ start, end, reasons }, i): Part => {
    const [melody, chords, partJumps, places] = [notesOf(end), chordsOf(end), jumpsOf(end), placesOf(end)];
    const moves = Math.max(0, places.length - 1);
    const stretchesOf = wideOf(end).length;
    const accompanying = sungIn(end);
    return {
      number: i + 1,
      label: form[i].label,
      name: names.get(start) ?? null,
      ...{ start, end, reasons, melody, chords, places },
      bars: barSpan(bars, start, end),
      repeats: form[i].repeats,
      together: joinsOf(end),
      under: underOf(end),
      jumps: partJumps,
      rooms: roomsIn(end),
      fills: fillsIn(end),
      sung: accompanying,
      difficulty: partDifficulty(
        {
          start,
          end,
          // Under a sung tune the right hand's chords are what it plays; their top notes stand for them.
          melody:
            way === 'sing-along'
              ? accompanying.map(({ at, length, pitches }) => ({ at, length, pitch: pitches[pitches.length - 1], lyric: null }))
              : melody,
          chords: chords.map((c) => (c.dressed ? { ...c, struck: c.dressed.notes } : c)),
          moves,
          stretches: stretchesOf,
          jumps: partJumps,
          leftSpan,
          tempo,
        },
        bars,
      ),
    };
  });
  const partOf = partFinder(parts);
  const loud = stretches.map(({ start, end }): LoudStretch => ({
    ...{ start, end },
    loudness: wishAt(doc, start, 'loudness'),
    swell: wishAt(doc, start, 'swell'),
  }));
  const score = parts.flatMap((part, i) =>
    scoreOf(part, right, plays(doc, 'tune') && way !== 'sing-along').map((n): ScoreNote => ({
      ...n,
      loudness: loudnessOf(n, loud[i], choices.balance),
    })),
  );
  const examined = {
    ...{ doc, bars, chords: struck, harmony, tune: played, places: right.places, jumps, parts, partOf },
    right: score.filter((n) => n.hand === 'right'),
  };
  return {
    ...{ song, bars, parts, score, strikes, way },
    dynamics: dynamicMarks(loud),
    tempo: tempoCourse(song, bars, close.slower),
    pedal: pedalPoints(left.chords, (at) => wishAt(doc, at, 'pedal')),
    sections: findSections(song, stretches, choices),
    hardest: hardestOf(parts),
    findings: [...fitted, ...moved, ...sayChords(doc, found, bars), ...sayEndings(ended.troubles), ...examine(examined)].sort(
      (a, b) => (a.at ?? 0) - (b.at ?? 0),
    ),
    totals: {
      leftTravel: left.travel,
      leftTravelRoot: left.travelRoot,
      pathCost: Math.round(left.cost * 1000) / 1000,
      motionWeight: left.motionWeight,
    },
  };
}

/** The chords at the places where they are struck: as written, on the beat, or with a note that is sung ahead of it. */
function timed(doc: Document, chords: readonly HarmonisedChord[], tune: Song['melody'], bars: Arrangement['bars']): TimedChord[] {
  const places = chordPlaces(
    chords.map((c) => c.at),
    tune,
    bars,
    (at) => wishAt(doc, at, 'timing'),
  );
  return chords.map((c, i) => ({ ...c, at: places[i], writtenAt: c.at }));
}

/** A chord as an outline has it: its lowest key alone, under the finger that plays it in the whole chord. */
function lowestOf(chord: VoicedChord): VoicedChord {
  return {
    ...chord,
    pitches: chord.pitches.slice(0, 1),
    fingers: chord.fingers.slice(0, 1),
    struck: chord.struck.slice(0, 1).map((n) => ({ ...n, length: chord.at + chord.length - n.at })),
    spread: 'together',
  };
}

/** Lays the last chord as a low octave, if there is one. */
function closeLow(dressed: PartChord['dressed'][], chords: readonly VoicedChord[], hands: Document['hands']): void {
  const last = chords[chords.length - 1];
  const low = last ? lowOctave(last, hands) : null;
  if (low) dressed[chords.length - 1] = { ...low, fingers: low.notes.length > 1 ? [5, 1] : [5] };
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
function withHarmony(
  chords: readonly VoicedChord[],
  harmony: readonly TimedChord[],
  joins: readonly Together[],
  dressed: readonly PartChord['dressed'][],
): PartChord[] {
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

/** Hands out the items of an ordered list stretch by stretch, each item once. */
function sliceBy<T extends { readonly at: Ticks }>(items: readonly T[]): (end: Ticks) => T[] {
  let from = 0;
  return (end) => {
    const start = from;
    while (from < items.length && items[from].at < end) from++;
    return items.slice(start, from);
  };
}

function withMelody(chord: VoicedChord, join: Together): string | null {
  const note = join.melody ?? join.under;
  const parsed = parseChord(chord.symbol);
  if (note === null || parsed.kind !== 'chord') return null;
  return nameWithMelody(parsed, nameOf(note));
}

function scoreOf(part: Part, { fingerOf }: RightHand, withTune: boolean): Omit<ScoreNote, 'loudness'>[] {
  const notes: Omit<ScoreNote, 'loudness'>[] = (withTune ? part.melody : []).map(({ at, length, pitch, finger }) => ({
    ...{ at, length, pitch, finger },
    hand: 'right',
    role: 'melody',
    part: part.number,
  }));
  for (const { at, length, pitches, fingers } of part.sung)
    pitches.forEach((pitch, k) =>
      notes.push({ hand: 'right', at, length, pitch, finger: fingers[k], role: 'chord', part: part.number }),
    );
  for (const { at, length, pitch, finger } of part.fills)
    notes.push({ hand: 'right', at, length, pitch, finger, role: 'fill', part: part.number });
  for (const { at, length, pitches } of part.under)
    for (const pitch of pitches)
      notes.push({ hand: 'right', at, length, pitch, finger: fingerOf(at, pitch), role: 'harmony', part: part.number });
  for (const chord of part.chords) {
    const role = chord.form === 'one-note' || chord.school === 'octave' || chord.school === 'under-melody' ? 'bass' : 'chord';
    if (chord.dressed) {
      const { fingers } = chord.dressed;
      chord.dressed.notes.forEach((n, k) => notes.push({ ...n, hand: 'left', finger: fingers[k] ?? null, part: part.number }));
      continue;
    }
    chord.struck.forEach(({ at, length, pitch }, k) =>
      notes.push({ hand: 'left', at, length, pitch, finger: chord.fingers[k] ?? null, role, part: part.number }),
    );
  }
  return notes.sort((a, b) => a.at - b.at || (a.hand === b.hand ? 0 : a.hand === 'right' ? -1 : 1));
}
