import { singAlongBass } from '../fills/sing-along.js';
import type { Section } from '../divide/sections.js';
import type { ExactRepeat } from '../divide/repeats.js';
import type { DominantNotes } from '../catalogue/schools/thinned.js';
import { parseChord } from '../harmony/symbol.js';
import { HELD, isPlain, textureNamed, WRITTEN } from '../fills/texture.js';
import type { HarmonicRhythm, Vocabulary } from '../harmony/wishes.js';
import type { Homes, VoicingWishes } from '../left-hand/problem.js';
import { SCHOOL_RULES } from '../catalogue/schools/registry.js';
import type { TimedSpan } from '../left-hand/strikes.js';
import type { Pitch } from '../pitch/pitch.js';
import {
  LAYERS,
  LEVELS,
  type BassWish,
  type Choices,
  type Document,
  type FillKind,
  type Hands,
  type Layer,
  type Level,
  type Passage,
  type PlayMode,
  type School,
  type Stay,
  type Suggesting,
} from '../song/decisions.js';
import type { InheritableSettings } from '../song/edits.js';
import type { Texture } from '../song/texture-data.js';
import { lastFrom } from '../time/bars.js';
import type { Ticks } from '../time/ticks.js';

/** What holds in a stretch of the song: what was chosen for it, else for the song, else what is usual. */
export interface StretchSettings extends Omit<InheritableSettings, 'texture'> {
  readonly start: Ticks;
  /** Where the next stretch begins; Infinity for the last one. */
  readonly end: Ticks;
  /** The school of its chords, no fuller than its level and the play mode allow. */
  readonly school: School;
  readonly bass: BassWish;
  /** How full the left hand is: what was asked for, and no fuller than the layers that are heard. */
  readonly level: Level;
  /** The accompaniment, null where the chords are played as they are voiced. */
  readonly texture: Texture | null;
  /** True where the left hand plays what was written for it. */
  readonly written: boolean;
  /** True for block chords that are held over the bar lines. */
  readonly heldOver: boolean;
  /** Suggested chords in place of the given ones, just here. */
  readonly suggest: Suggesting | null;
  /** A right hand that stays on one or two notes in place of the tune, just here. */
  readonly stay: Stay | null;
}

/**
 * Everything that was chosen, as values: read from the document once, before anything is computed. The stages of {@link arrange}
 * take these and the song, and ask the document nothing.
 */
export interface Settings {
  readonly hands: Hands;
  readonly playMode: PlayMode;
  readonly feel: Choices['feel'];
  /** The layers that are played: asked for, possible in this play mode, and not muted. */
  readonly plays: Readonly<Record<Layer, boolean>>;
  readonly division: Pick<Choices, 'partSize' | 'parts'>;
  readonly sections: Choices['sections'];
  /** Names of parts by the places where they begin. */
  readonly names: ReadonlyMap<Ticks, string>;
  /** Chords that the pianist wrote inside the song; null where one was left out. */
  readonly chords: ReadonlyMap<Ticks, string | null>;
  /** How the whole song's chords are suggested, null where it keeps what it brought. */
  readonly suggest: Suggesting | null;
  /** Pinned keys, schools and fingers of single chords, by the places where they are written. */
  readonly pins: ReadonlyMap<Ticks, readonly Pitch[]>;
  readonly chordSchools: ReadonlyMap<Ticks, School>;
  readonly leftFingers: ReadonlyMap<Ticks, readonly number[]>;
  readonly rightFingers: ReadonlyMap<Ticks, readonly number[]>;
  readonly fills: ReadonlyMap<Ticks, FillKind>;
  /** Fermatas and breaths that were added, in order. */
  readonly stops: Choices['stops'];
  /** What the pianist wants to be reminded of, in order. */
  readonly reminders: Choices['reminders'];
  /** How much softer than the tune the accompaniment is, in percent. */
  readonly balance: number;
  readonly close: Choices['close'];
  /** The keys that symbols have through the whole song, where only some of it is arranged. */
  readonly homes?: Homes;
  /** Stretches that tile the song, the first from 0. */
  readonly stretches: readonly StretchSettings[];
}

/** The school of a song where nothing was chosen: the nearest inversion, or two notes in a first year. */
export function usualSchool({ hands }: Pick<Document, 'hands'>): School {
  return hands.firstYear ? 'two-note' : 'close';
}

/** What a bare tune is harmonised with when nothing else was asked for. */
export const USUAL_SUGGESTION: { readonly vocabulary: Vocabulary; readonly rhythm: HarmonicRhythm } = {
  vocabulary: 'triads',
  rhythm: 'proposed',
};

/** How the whole song's chords are suggested, or null where it keeps what it brought. */
export function suggestionFor(doc: Pick<Document, 'song' | 'choices'>): Suggesting | null {
  return doc.choices.suggest ?? (doc.song.chords.length === 0 ? USUAL_SUGGESTION : null);
}

/** Reads what a document says was chosen. */
export function settingsOf(doc: Document): Settings {
  const { choices, hands, song } = doc;
  const byPlace = <T extends { readonly at: Ticks }, V>(items: readonly T[], value: (item: T) => V) =>
    new Map(items.map((item) => [item.at, value(item)]));
  const fingersOf = (hand: 'left' | 'right') =>
    byPlace(
      choices.fingers.filter((f) => f.hand === hand),
      (f) => f.fingers,
    );
  const plays = playedLayers(choices);
  return {
    hands,
    plays,
    playMode: choices.playMode,
    feel: choices.feel,
    balance: choices.balance,
    close: choices.close,
    sections: choices.sections,
    division: { partSize: choices.partSize, parts: choices.parts },
    names: byPlace(choices.names, (n) => n.name),
    chords: byPlace(
      choices.chords.filter((c) => c.at < song.length),
      (c) => c.symbol,
    ),
    suggest: suggestionFor(doc),
    pins: byPlace(choices.pins, (p) => p.pitches),
    // Under a voice every chord is a bass, whatever its own school.
    chordSchools: choices.playMode === 'sing-along' ? new Map<Ticks, School>() : byPlace(choices.chordSchools, (c) => c.school),
    leftFingers: fingersOf('left'),
    rightFingers: fingersOf('right'),
    fills: byPlace(choices.fills, (f) => f.kind),
    stops: choices.stops.filter((s) => s.at < song.length),
    reminders: choices.reminders.filter((r) => r.at < song.length).sort((a, b) => a.at - b.at),
    stretches: tiles(choices.passages).map((tile) => inStretch(doc, plays, tile)),
  };
}

/** What holds at a place. */
export function stretchAt({ stretches }: Pick<Settings, 'stretches'>, at: Ticks): StretchSettings {
  return lastFrom(stretches, at) ?? stretches[0];
}

/** What the left hand is given beside its chords: the song's own form. */
interface Form {
  readonly spans: readonly TimedSpan[];
  readonly sections: readonly Pick<Section, 'start'>[];
  readonly repeats: readonly ExactRepeat[];
}

/** How the left hand is to be voiced: chord by chord, else by its stretch. */
export function voicingWishes(settings: Settings, { spans, sections, repeats }: Form): VoicingWishes {
  const { hands, pins, leftFingers: fingers, chordSchools, homes } = settings;
  // Every strike of a chord follows the school of its symbol's place.
  const own = spans.flatMap(({ at, length, writtenAt }) => {
    const school = chordSchools.get(writtenAt ?? at);
    return school ? [{ start: at, end: at + length, school }] : [];
  });
  const usual = dominantsFor(spans);
  return {
    hands,
    pins,
    fingers,
    sections: sections.map((s) => s.start),
    repeats,
    homes,
    schoolAt: (at) => {
      const [here, span] = [stretchAt(settings, at), lastFrom(own, at)];
      return span && span.start <= at && at < span.end ? schoolWithin(here.level, span.school) : here.school;
    },
    bassAt: (at) => stretchAt(settings, at).bass,
    wishAt: (at) => {
      const { dominants, leftOctave, level } = stretchAt(settings, at);
      const wished = dominants === 'usual' ? usual : dominants;
      return { dominants: level === 'triads' ? 'all-three' : wished, octave: leftOctave };
    },
  };
}

/** Four notes for a dominant where most chords of the song are sevenths, three after triads. */
function dominantsFor(spans: readonly TimedSpan[]): DominantNotes {
  const chords = spans.map((s) => parseChord(s.symbol)).filter((c) => c.kind === 'chord');
  const sevenths = chords.filter((c) => c.quality.seventh !== null).length;
  return 2 * sevenths > chords.length ? 'four' : 'three';
}

/** A layer is played where it is not muted; only a song that is played as it is arranged has texture, harmony and fills. */
function playedLayers({ playMode, muted }: Choices): Readonly<Record<Layer, boolean>> {
  const possible = (layer: Layer) => playMode === 'arranged' || !['texture', 'harmony', 'fills'].includes(layer);
  return Object.fromEntries(LAYERS.map((layer) => [layer, possible(layer) && !muted.includes(layer)])) as Record<Layer, boolean>;
}

/** The stretches with wishes of their own and those between them, from the start of the song on. */
function tiles(passages: readonly Passage[]): Passage[] {
  const row: Passage[] = [];
  let at = 0;
  for (const passage of passages) {
    if (passage.start > at) row.push({ start: at, end: passage.start });
    row.push(passage);
    at = passage.end;
  }
  return [...row, { start: at, end: Infinity }];
}

function inStretch({ song, choices, hands }: Document, plays: Settings['plays'], own: Passage): StretchSettings {
  const { start, end, suggest = null, stay = null } = own;
  const wish = <K extends keyof InheritableSettings>(name: K): InheritableSettings[K] =>
    (own[name] as InheritableSettings[K] | undefined) ?? choices[name];
  const name = wish('texture');
  const textured = plays.texture && !isPlain(name);
  const wished = atMost(wish('level'), hands.most);
  const level = textured ? wished : withinLayers(wished, choices.muted);
  const school = own.school ?? choices.school ?? usualSchool({ hands });
  return {
    start,
    end,
    suggest,
    stay,
    level,
    school: schoolWithin(level, choices.playMode === 'sing-along' ? singAlongBass(hands) : school),
    bass: own.bass ?? choices.bass,
    // Fewer notes than full chords leave no room for a texture.
    texture: textured && (level === 'triads' || level === 'full') ? textureNamed(name, choices.textures) : null,
    written: textured && name === WRITTEN && song.left !== undefined && (level === 'triads' || level === 'full'),
    heldOver: plays.texture && name === HELD,
    timing: wish('timing'),
    touch: wish('touch'),
    rhythm: wish('rhythm'),
    octave: wish('octave'),
    dominants: wish('dominants'),
    under: wish('under'),
    leftOctave: wish('leftOctave'),
    harmony: wish('harmony'),
    pedal: wish('pedal'),
    walk: wish('walk'),
    loudness: wish('loudness'),
    swell: wish('swell'),
    ending: wish('ending'),
  };
}

/** The school that a simpler level allows in place of the one that was asked for. */
function schoolWithin(level: Level, school: School): School {
  if (level === 'bass' && SCHOOL_RULES[school].notes > 1) return 'single-bass';
  if (level === 'two-note' && SCHOOL_RULES[school].notes > 2) return 'two-note';
  return school;
}

/**
 * A level, no fuller than the layers allow: with its chords muted the left hand plays two notes, with those muted bass notes, with
 * those muted nothing. A texture that is heard needs its chords and is not asked here.
 */
function withinLayers(level: Level, muted: readonly Layer[]): Level {
  const most: Level = !muted.includes('block')
    ? 'full'
    : !muted.includes('two-note')
      ? 'two-note'
      : !muted.includes('bass')
        ? 'bass'
        : 'tune';
  return atMost(level, most);
}

/** The simpler of two levels. */
export const atMost = (level: Level, most: Level): Level => LEVELS[Math.min(LEVELS.indexOf(level), LEVELS.indexOf(most))];
