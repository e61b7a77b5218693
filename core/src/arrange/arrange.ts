import { nameWithMelody } from '../harmony/naming.js';
import { parseChord } from '../harmony/symbol.js';
import { hardestOf, partDifficulty } from '../difficulty/difficulty.js';
import { divide } from '../divide/divide.js';
import { findRepeats } from '../divide/repeats.js';
import { findSections } from '../divide/sections.js';
import { pedalPoints } from '../fills/pedal.js';
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
import { chordsWithin } from './levels.js';
import { fitTune, playedTune, sayChords } from './resolve.js';
import { asStruck, attacksOf, dressLeftHand } from './texture-plan.js';
import { wishesOf } from './wishes.js';

/** A chord as it is struck, with the place where it is written. */
type TimedChord = HarmonisedChord & { readonly writtenAt: Ticks };

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
  const harmony = timed(doc, chordsWithin(doc, found), played, bars);
  const song: Song = { ...doc.song, melody: played, chords: harmony.map(({ at, symbol }) => ({ at, symbol })) };
  const spans = chordSpans(song).map((span, i) => ({ ...span, writtenAt: harmony[i].writtenAt }));
  const strikes = blockStrikes(spans, bars).filter((s) => wishAt(doc, s.at, 'level') !== 'tune');
  const left = voiceLeftHand(strikes, played, wishesOf(doc, spans));
  const hung = notesUnderTune(left.chords, played, hands, bars);
  const sounding = [...played, ...hung.flatMap((u) => u.pitches.map((pitch) => ({ at: u.at, length: u.length, pitch })))].sort(
    (a, b) => a.at - b.at,
  );
  const dressed = dressLeftHand(doc, left.chords, {
    ...{ bars, right: sounding, hands, key: song.key },
    phrases: stretches.map((s) => s.start),
    tempo,
  });
  const added = harmonyUnder({
    ...{ tune: played, chords: asStruck(left.chords, dressed), bars, hands, ends },
    taken: new Set(hung.map((u) => u.at)),
    wishAt: (at) => wishAt(doc, at, 'harmony'),
  });
  const under = added.length === 0 ? hung : [...hung, ...added].sort((a, b) => a.at - b.at);
  const together = togetherPoints(attacksOf(left.chords, dressed), played, bars);
  const right = fingerRightHand({
    ...{ tune: played, under, hands, tempo, fingers: choices.fingers, key: song.key },
    phrases: stretches.map((s) => s.start),
  });
  const form = findRepeats({ ...song, melody: written }, stretches, chordSpans({ ...song, chords: found }));
  const names = new Map(choices.names.map((n) => [n.at, n.name]));
  const jumps = [...leftJumps(left.chords, tempo), ...rightJumps(right.places, tempo)].sort((a, b) => a.at - b.at);
  const fingered = played.map((n) => ({ ...n, finger: right.fingerOf(n.at, n.pitch) }));
  const wide = wideGrips(right, spanOf(hands, 'right').comfortable);
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
      difficulty: partDifficulty(
        {
          start,
          end,
          melody,
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
  const score = parts.flatMap((part) => scoreOf(part, right));
  const examined = {
    ...{ doc, bars, chords: asStruck(left.chords, dressed), harmony, tune: played, places: right.places, jumps, parts, partOf },
    right: score.filter((n) => n.hand === 'right'),
  };
  return {
    ...{ song, bars, parts, score, strikes },
    pedal: pedalPoints(left.chords, (at) => wishAt(doc, at, 'pedal')),
    sections: findSections(song, stretches, choices),
    hardest: hardestOf(parts),
    findings: [...fitted, ...moved, ...sayChords(doc, found, bars), ...examine(examined)].sort(
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

function scoreOf(part: Part, { fingerOf }: RightHand): ScoreNote[] {
  const notes: ScoreNote[] = part.melody.map(({ at, length, pitch, finger }) => ({
    ...{ at, length, pitch, finger },
    hand: 'right',
    role: 'melody',
    part: part.number,
  }));
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
