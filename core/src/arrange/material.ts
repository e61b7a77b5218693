import { divide, type Stretch } from '../divide/divide.js';
import { exactRepeats, findRepeats, type ExactRepeat, type FormEntry } from '../divide/repeats.js';
import { findSections, type Section } from '../divide/sections.js';
import { chordPlaces } from '../left-hand/timing.js';
import type { TimedSpan } from '../left-hand/strikes.js';
import { chordSpans, type KeyNote, type Song } from '../song/song.js';
import { layBars, type Bar } from '../time/bars.js';
import type { Ticks } from '../time/ticks.js';
import { withEndings, type TimedChord } from './endings.js';
import type { Finding } from './finding.js';
import { harmonise, type HarmonisedChord } from './harmonise.js';
import { chordsWithin } from './levels.js';
import { fitTune, innerVoice, playedTune, reachableTune, writtenLeft, sayChords, sayEndings } from './resolve.js';
import { stretchAt, type Settings } from './settings.js';

/** What the hands are given: the song divided, its tune and its chords as they are played. */
export interface Material {
  readonly bars: readonly Bar[];
  readonly stretches: readonly Stretch[];
  /** Where the parts begin, and where they end. */
  readonly starts: readonly Ticks[];
  readonly ends: readonly Ticks[];
  /** The tune on the keyboard's keys, and as it is played: straightened, in another octave or resting. */
  readonly written: Song['melody'];
  readonly played: Song['melody'];
  /** The left hand as it was written, as far as this hand can play it; empty where it is played nowhere. */
  readonly left: readonly KeyNote[];
  /** The second voice of the right hand as it is played. */
  readonly inner: readonly KeyNote[];
  /** The chords of the song, the pianist's or suggested ones; and as they are struck, with endings. */
  readonly found: readonly HarmonisedChord[];
  readonly harmony: readonly TimedChord[];
  /** The song with what is played. */
  readonly song: Song;
  readonly spans: readonly TimedSpan[];
  /** Its named sections, how each part takes up an earlier one, and the stretches that come again exactly. */
  readonly sections: readonly Section[];
  readonly form: readonly FormEntry[];
  readonly repeats: readonly ExactRepeat[];
  readonly findings: readonly Finding[];
}

/** Brings the choices made on tune, parts and chords together, with what is to be said of them. */
export function materialOf(given: Song, settings: Settings): Material {
  const bars = layBars(given);
  const { written, findings: fitted } = fitTune(given, settings.hands, bars);
  const stretches = divide({ ...given, melody: written }, bars, settings.division);
  const { played: wished, findings: moved } = playedTune(given, settings, written, stretches, bars);
  const { tune: played, findings: narrowed } = reachableTune(wished, settings, bars);
  const { inner, findings: parted } = innerVoice(given, played, settings, bars);
  const { left, findings: bent } = writtenLeft(given, settings, bars);
  const ends = stretches.map((s) => s.end);
  const found = harmonise(given, settings, written, bars, ends);
  const starts = stretches.map((s) => s.start);
  const struck = timed(settings, chordsWithin(settings, found), played, bars, starts);
  const ended = withEndings(settings, struck, stretches, played, bars);
  const harmony = ended.chords;
  const marks = withAdded(given.marks, settings.stops);
  const song: Song = { ...given, marks, melody: played, chords: harmony.map(({ at, symbol }) => ({ at, symbol })) };
  const form = findRepeats({ ...song, melody: written }, stretches, chordSpans({ ...song, chords: [...found] }));
  return {
    bars,
    form,
    sections: findSections(given, stretches, settings),
    repeats: exactRepeats(stretches.map((s, i) => ({ ...s, repeats: form[i].repeats }))),
    stretches,
    ends,
    written,
    played,
    left,
    inner,
    found,
    harmony,
    song,
    starts,
    spans: chordSpans(song).map((span, i) => ({ ...span, writtenAt: harmony[i].writtenAt })),
    findings: [
      ...fitted,
      ...moved,
      ...narrowed,
      ...parted,
      ...bent,
      ...sayChords(given, found, bars),
      ...sayEndings(ended.troubles, bars),
    ],
  };
}

/** The marks of a song with the fermatas and breaths that were added, in order. */
function withAdded(marks: Song['marks'], stops: Settings['stops']): Song['marks'] {
  const there = new Set(marks.map((m) => `${m.kind} ${m.at}`));
  const added = stops.filter((s) => !there.has(`${s.kind} ${s.at}`));
  return added.length === 0 ? marks : [...marks, ...added.map((s) => ({ ...s, text: null }))].sort((a, b) => a.at - b.at);
}

/** The chords at the places where they are struck: as written, on the beat, or with a note that is sung ahead of it. */
function timed(
  settings: Settings,
  chords: readonly HarmonisedChord[],
  tune: Song['melody'],
  bars: readonly Bar[],
  starts: readonly Ticks[],
): TimedChord[] {
  const places = chordPlaces(
    chords.map((c) => c.at),
    tune,
    bars,
    (at) => stretchAt(settings, at).timing,
    new Set(starts),
  );
  return chords.map((c, i) => ({ ...c, at: places[i], writtenAt: c.at }));
}
