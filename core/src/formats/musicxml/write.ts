import { signatureOf, type Key } from '../../harmony/key.js';
import { inversionOf, toneFor } from '../../harmony/naming.js';
import { parseChord, type Chord } from '../../harmony/symbol.js';
import type { ShortTouch } from '../../song/touch.js';
import { nameOf, pitchParts, type Pitch } from '../../pitch/pitch.js';
import type { Lyric, Song } from '../../song/song.js';
import { firstAtOrAfter, layBars, type Bar } from '../../time/bars.js';
import { TICKS_PER_QUARTER, type Ticks } from '../../time/ticks.js';
import { beatTicks } from '../../time/meter.js';
import { ornamentsOf } from '../ornaments.js';
import { barEvents, breathsOf, fermatasOf, noteValues, slursOf, splitForTuplets, type Piece } from '../pieces.js';
import { beamLevel, beamsOf, type Beamable } from './beams.js';
import { directionsIn, escapeXml, farBars, octaveShift, type Directions } from './directions.js';

/** A chord as it is engraved. */
export interface WrittenChord {
  readonly at: Ticks;
  readonly length: Ticks;
  readonly pitches: readonly Pitch[];
  readonly fingers: readonly number[];
  /** True where it is rolled from the bottom. */
  readonly rolled: boolean;
  /** Where its keys are let go before their time. */
  readonly touch?: ShortTouch;
  /** Small notes before it. */
  readonly graces?: readonly Pitch[];
}

/** What is engraved: the tune with its chord symbols on the upper staff, the left hand's chords on the lower. */
export interface WrittenScore extends Directions {
  readonly left: readonly WrittenChord[];
  /** What the right hand plays beside the tune: chord notes under it, fills, or chords in its place. */
  readonly under: readonly WrittenChord[];
  /** Right-hand fingers of the tune by the places of its notes. */
  readonly fingers: ReadonlyMap<Ticks, number>;
  /** Fingers of what is struck with the tune, bottom-up, by the same places. */
  readonly besideFingers: ReadonlyMap<Ticks, readonly (number | null)[]>;
  /** True where it is engraved here, not written for elsewhere. */
  readonly forPage?: boolean;
}

/**
 * A score as a page shows it: a chord symbol stands where the chord changes and not again while it stays, the fingers of a chord stand in
 * one column, and title and credits are at the head.
 */
export function asPage(score: WrittenScore): WrittenScore {
  const { song } = score;
  const chords = song.chords.filter((c, i) => c.symbol !== song.chords[i - 1]?.symbol);
  return { ...score, song: { ...song, chords }, forPage: true };
}

/** Title and credits at the head of the first page. */
function credits({ title, composer }: Song): string {
  const credit = (type: string, justify: string, words: string) =>
    `  <credit page="1"><credit-type>${type}</credit-type><credit-words justify="${justify}" valign="top">${escapeXml(words)}</credit-words></credit>\n`;
  return credit('title', 'center', title) + (composer ? credit('composer', 'right', composer) : '');
}

/**
 * Writes a MusicXML 4.0 score of two staves, with chord symbols, left-hand fingers and words: all of it, or its first bars exactly as they
 * stand in the whole.
 */
export function writeMusicXml(score: WrittenScore, most = Infinity): string {
  const { song } = score;
  const bars = layBars(song);
  const events = barEvents(song, bars);
  const beside = [...song.melody.map((n) => ({ at: n.at, pitches: [n.pitch] })), ...score.under].sort((a, b) => a.at - b.at);
  const far = { 1: farBars(beside, bars, 1), 2: farBars(score.left, bars, 2) };
  const signs: NoteSigns = {
    fermatas: fermatasOf(song),
    breaths: breathsOf(song),
    ornaments: ornamentsOf(song),
    ...slursOf(song),
  };
  const voices = { left: inVoices(score.left), under: inVoices(score.under) };
  const measures = bars.slice(0, most).map((bar, i) => measure(score, bar, i, bars, events[i], far, signs, voices));
  return `<?xml version="1.0" encoding="UTF-8"?>
<!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 4.0 Partwise//EN" "http://www.musicxml.org/dtds/partwise.dtd">
<score-partwise version="4.0">
  <work><work-title>${escapeXml(song.title)}</work-title></work>
  <identification>${song.composer ? `<creator type="composer">${escapeXml(song.composer)}</creator>` : ''}<encoding><software>Joined Hands</software></encoding></identification>
${score.forPage ? credits(song) : ''}  <part-list><score-part id="P1"><part-name print-object="no">Piano</part-name></score-part></part-list>
  <part id="P1">
${measures.join('\n')}
  </part>
</score-partwise>
`;
}

/** Chords in as few voices as they need, each one after another in its own; one voice at least. */
function inVoices(chords: readonly WrittenChord[]): WrittenChord[][] {
  const voices: WrittenChord[][] = [[]];
  for (const chord of chords) {
    const free = voices.find((v) => v.length === 0 || v[v.length - 1].at + v[v.length - 1].length <= chord.at);
    if (free) free.push(chord);
    else voices.push([chord]);
  }
  return voices;
}

function measure(
  score: WrittenScore,
  bar: Bar,
  index: number,
  bars: readonly Bar[],
  pieces: readonly Piece[],
  far: Readonly<Record<1 | 2, ReadonlySet<number>>>,
  signs: NoteSigns,
  voices: Readonly<Record<'left' | 'under', readonly (readonly WrittenChord[])[]>>,
): string {
  const { song } = score;
  const implicit = bar.number === 0 ? ' implicit="yes"' : '';
  const xml = [`    <measure number="${bar.number}"${implicit}>`];
  const before = bars[index - 1]?.meter;
  const sameMeter = before && before.beats === bar.meter.beats && before.unit === bar.meter.unit;
  if (index === 0) xml.push(attributes(song, bar));
  else if (!sameMeter) xml.push(`      <attributes>${time(bar)}</attributes>`);
  xml.push(...directionsIn(score, bar, index === 0, index === bars.length - 1));
  for (const staff of [1, 2] as const) xml.push(...octaveShift(far[staff], index, bar, staff, 'start'));
  const tune = tuneNotes(bar, pieces, score, signs);
  const beams = beamsOf(tune, beatTicks(bar.meter));
  tune.forEach((n, i) => {
    const beside = n.with.map((p, k) => {
      const finger = n.besideFingers[k];
      const notations = [n.notations[0], ...(finger ? [fingeringXml(finger, 1)] : [])];
      return note({ ...n, pitch: pitchXml(p), notations, lyric: '', chord: true });
    });
    xml.push(...(n.harmony ? [n.harmony] : []), ...n.graces.map((p) => graceXml(p)), note({ ...n, beam: beams[i] }), ...beside);
  });
  const backup = `      <backup><duration>${bar.end - bar.start}</duration></backup>`;
  for (const [k, chords] of voices.under.entries()) {
    const under = chordNotes(chords, bar, {
      ...UNDER,
      voice: k < UNDER_VOICES ? UNDER.voice + k : LEFT.voice + voices.left.length + k,
    });
    if (under.length > 0) xml.push(backup, ...under);
  }
  for (const [k, chords] of voices.left.entries()) {
    const written = chordNotes(chords, bar, { ...LEFT, voice: LEFT.voice + k, rests: k === 0, stacked: score.forPage });
    if (written.length > 0) xml.push(backup, ...written);
  }
  for (const staff of [1, 2] as const) xml.push(...octaveShift(far[staff], index, bar, staff, 'stop'));
  if (index === bars.length - 1) xml.push('      <barline location="right"><bar-style>light-heavy</bar-style></barline>');
  xml.push('    </measure>');
  return xml.join('\n');
}

function attributes(song: Song, bar: Bar): string {
  return `      <attributes><divisions>${TICKS_PER_QUARTER}</divisions>${keyXml(song.key)}${time(bar)}<staves>2</staves><clef number="1"><sign>G</sign><line>2</line></clef><clef number="2"><sign>F</sign><line>4</line></clef></attributes>`;
}

const keyXml = (key: Key): string => `<key><fifths>${signatureOf(key)}</fifths><mode>${key.mode}</mode></key>`;
const time = (bar: Bar): string => `<time><beats>${bar.meter.beats}</beats><beat-type>${bar.meter.unit}</beat-type></time>`;

/** Signs that belong to notes of the tune, by their places. */
interface NoteSigns {
  readonly fermatas: ReadonlySet<Ticks>;
  /** Places that a breath comes before. */
  readonly breaths: ReadonlySet<Ticks>;
  readonly ornaments: ReturnType<typeof ornamentsOf>;
  /** Places where slurs begin, and where their last notes end. */
  readonly slurStarts: ReadonlySet<Ticks>;
  readonly slurEnds: ReadonlySet<Ticks>;
}

/** The signs of a written note: those of where it is struck, and of where it ends. */
function signsXml(signs: NoteSigns, at: Ticks, length: Ticks, struck: boolean, ends: boolean): string[] {
  return [
    ...(struck && signs.slurStarts.has(at) ? ['<slur type="start" number="1"/>'] : []),
    ...(ends && signs.slurEnds.has(at + length) ? ['<slur type="stop" number="1"/>'] : []),
    ...(struck ? ornamentXml(signs.ornaments.get(at)) : []),
    ...(ends && signs.breaths.has(at + length) ? ['<articulations><breath-mark/></articulations>'] : []),
    ...(struck && signs.fermatas.has(at) ? ['<fermata/>'] : []),
  ];
}

const ornamentXml = (ornament: { readonly tag: string } | undefined): string[] =>
  ornament ? [`<ornaments><${ornament.tag}/></ornaments>`] : [];

const graceXml = (pitch: Pitch, voice = 1, staff = 1): string =>
  `      <note><grace slash="yes"/>${pitchXml(pitch)}<voice>${voice}</voice><type>eighth</type><staff>${staff}</staff></note>`;

type Tuplet = { readonly actual: number; readonly normal: number } | null;

interface TuneNote extends NoteXml, Beamable {
  readonly harmony: string | null;
  readonly graces: readonly Pitch[];
  /** What is struck with it, and with which fingers where it is struck here. */
  readonly with: readonly Pitch[];
  readonly besideFingers: readonly (number | null)[];
}

/** Fingers of what the right hand strikes at a place: of the tune's note, and of what is struck with it. */
interface FingersAt {
  readonly tune: number | undefined;
  readonly beside: readonly (number | null)[];
}

const NO_FINGERS: FingersAt = { tune: undefined, beside: [] };

const fingersAt = ({ fingers, besideFingers }: WrittenScore, at: Ticks): FingersAt => ({
  tune: fingers.get(at),
  beside: besideFingers.get(at) ?? [],
});

/** The tune of a bar as written notes; a piece becomes several, tied, where its length is no single note value. */
function tuneNotes(bar: Bar, pieces: readonly Piece[], score: WrittenScore, signs: NoteSigns): TuneNote[] {
  const notes: TuneNote[] = [];
  for (const { tuplet, pieces: group } of splitForTuplets(pieces)) {
    const scale = tuplet ? tuplet.actual / tuplet.normal : 1;
    for (const [k, piece] of group.entries()) {
      const values = noteValues(Math.round(piece.length * scale));
      let at = bar.lead + piece.at;
      values.forEach((value, i) => {
        const [first, last] = [i === 0, i === values.length - 1];
        const stop = piece.pitch !== null && (!first || piece.continues);
        const start = piece.pitch !== null && (!last || piece.tiedOn);
        const opens = tuplet !== null && first && k === 0;
        const struck = !stop && piece.pitch !== null;
        const fingers = struck ? fingersAt(score, bar.start + piece.at) : NO_FINGERS;
        const closes = tuplet !== null && last && k === group.length - 1;
        notes.push({
          at,
          level: piece.pitch === null ? 0 : beamLevel(value.type),
          harmony: first && piece.chord ? harmony(piece.chord) : null,
          graces: first ? piece.graces : [],
          with: piece.with,
          besideFingers: fingers.beside,
          pitch: piece.pitch === null ? '<rest/>' : pitchXml(piece.pitch),
          duration: value.ticks / scale,
          ties: tieXml('tie', stop, start),
          voice: 1,
          shape: `<type>${value.type}</type>${'<dot/>'.repeat(value.dots)}${timeModification(tuplet)}`,
          staff: 1,
          notations: [
            tieXml('tied', stop, start),
            ...(opens ? ['<tuplet type="start" bracket="yes"/>'] : []),
            ...(closes ? ['<tuplet type="stop"/>'] : []),
            ...(fingers.tune ? [fingeringXml(fingers.tune, 1)] : []),
            ...(piece.pitch === null ? [] : signsXml(signs, bar.start + piece.at, piece.length, struck, !start)),
          ],
          lyric: first && piece.lyric ? lyric(piece.lyric, piece.insideWord) : '',
        });
        at += value.ticks / scale;
      });
    }
  }
  return notes;
}

const tieXml = (tag: 'tie' | 'tied', stop: boolean, start: boolean): string =>
  (stop ? `<${tag} type="stop"/>` : '') + (start ? `<${tag} type="start"/>` : '');

/** Fingers of the right hand stand over its staff, those of the left under its own. */
const fingeringXml = (fingers: number | readonly number[], staff: number): string =>
  `<technical>${[fingers]
    .flat()
    .map((f) => `<fingering placement="${staff === 2 ? 'below' : 'above'}">${f}</fingering>`)
    .join('')}</technical>`;

const timeModification = (t: Tuplet): string =>
  t
    ? `<time-modification><actual-notes>${t.actual}</actual-notes><normal-notes>${t.normal}</normal-notes></time-modification>`
    : '';

interface NoteXml {
  pitch: string;
  duration: number;
  ties: string;
  voice: number;
  shape: string;
  staff: number;
  notations: readonly string[];
  lyric: string;
  chord?: boolean;
  beam?: string;
}

function note(n: NoteXml): string {
  const notated = n.notations.join('');
  const notations = notated ? `<notations>${notated}</notations>` : '';
  return `      <note>${n.chord ? '<chord/>' : ''}${n.pitch}<duration>${n.duration}</duration>${n.ties}<voice>${n.voice}</voice>${n.shape}<staff>${n.staff}</staff>${n.beam ?? ''}${notations}${n.lyric}</note>`;
}

function lyric({ text, joins }: Lyric, insideWord: boolean): string {
  const syllabic = insideWord ? (joins ? 'middle' : 'end') : joins ? 'begin' : 'single';
  return `<lyric number="1"><syllabic>${syllabic}</syllabic><text>${escapeXml(text)}</text></lyric>`;
}

function pitchXml(pitch: Pitch): string {
  const { step, alter, octave } = pitchParts(pitch);
  return `<pitch><step>${'CDEFGAB'[step]}</step>${alter ? `<alter>${alter}</alter>` : ''}<octave>${octave}</octave></pitch>`;
}

/** A voice of chords: its number, its staff, and whether its silence is written. */
interface ChordVoice {
  readonly voice: number;
  readonly staff: number;
  readonly rests: boolean;
  /** True where the fingers of a chord stand in one column, at its highest note. */
  readonly stacked?: boolean;
}

const LEFT: ChordVoice = { voice: 5, staff: 2, rests: true };
const UNDER: ChordVoice = { voice: 2, staff: 1, rests: false };
/** Voices of the upper staff under the tune's, by the numbers that are usual for it. */
const UNDER_VOICES = 3;

/** The sign of a touch, at the first note of a chord. */
const TOUCH_SIGNS: Readonly<Record<ShortTouch, string>> = {
  light: '<articulations><detached-legato/></articulations>',
  short: '<articulations><staccato/></articulations>',
};

/** A piece of a voice: where it stands in a full bar, how it would be beamed, and its notes with their beam. */
interface VoicePiece extends Beamable {
  readonly xml: (beam: string) => string[];
}

/** The chords of one bar in their voice. A voice without written rests is nothing at all where it has no chord. */
function chordNotes(chords: readonly WrittenChord[], bar: Bar, voice: ChordVoice): string[] {
  const pieces: VoicePiece[] = [];
  let at = bar.start;
  const push = (until: Ticks, chord: WrittenChord | null, tiedTo = false, tiedOn = false) => {
    let place = bar.lead + at - bar.start;
    const skipped = until - at;
    at = until;
    if (chord === null && !voice.rests) {
      pieces.push({ at: place, level: 0, xml: () => [`      <forward><duration>${skipped}</duration></forward>`] });
      return;
    }
    const values = leftValues(skipped);
    values.forEach((value, i) => {
      const [stop, start] = [tiedTo || i > 0, tiedOn || i < values.length - 1];
      const level = chord === null ? 0 : beamLevel(value.type);
      pieces.push({ at: place, level, xml: (beam) => leftValue(value, chord, voice, stop, start, beam) });
      place += value.ticks;
    });
  };
  const first = firstAtOrAfter(chords, bar.start);
  const held = chords[first - 1];
  // A chord that came ahead of the bar line is held over it.
  if (held && held.at + held.length > bar.start)
    push(Math.min(bar.end, held.at + held.length), held, true, held.at + held.length > bar.end);
  for (let i = first; i < chords.length && chords[i].at < bar.end; i++) {
    const end = chords[i].at + chords[i].length;
    if (chords[i].at > at) push(chords[i].at, null);
    push(Math.min(bar.end, end), chords[i], false, end > bar.end);
  }
  if (at < bar.end && (voice.rests || pieces.length > 0)) push(bar.end, null);
  const beams = beamsOf(pieces, beatTicks(bar.meter));
  return pieces.flatMap((piece, i) => piece.xml(beams[i]));
}

/** Note values for a left-hand length; one that no note value has, in a tuplet's time, keeps its exact duration. */
function leftValues(length: Ticks): { ticks: Ticks; type: string; dots: number }[] {
  const values = noteValues(length);
  const sum = values.reduce((total, v) => total + v.ticks, 0);
  return sum === length ? values : [{ ticks: length, type: values[0]?.type ?? '128th', dots: 0 }];
}

function leftValue(
  value: { ticks: number; type: string; dots: number },
  chord: WrittenChord | null,
  { voice, staff, stacked }: ChordVoice,
  stop: boolean,
  start: boolean,
  beam: string,
): string[] {
  const shape = `<type>${value.type}</type>${'<dot/>'.repeat(value.dots)}`;
  const plain = { duration: value.ticks, voice, shape, staff, lyric: '' };
  if (!chord) return [note({ ...plain, pitch: '<rest/>', ties: '', notations: [] })];
  const small = stop ? [] : (chord.graces ?? []).map((p) => graceXml(p, voice, staff));
  const struck = chord.pitches.map((pitch, k) => {
    const column = k === chord.pitches.length - 1 ? chord.fingers.toReversed() : [];
    const own = stacked ? column.filter((f) => f > 0) : chord.fingers.slice(k, k + 1).filter((f) => f > 0);
    const finger = !stop && own.length > 0 ? [fingeringXml(own, staff)] : [];
    return note({
      ...plain,
      beam: k === 0 ? beam : '',
      chord: k > 0,
      pitch: pitchXml(pitch),
      ties: tieXml('tie', stop, start),
      notations: [
        tieXml('tied', stop, start),
        ...finger,
        ...(chord.touch && k === 0 && !stop ? [TOUCH_SIGNS[chord.touch]] : []),
        ...(chord.rolled && !stop ? ['<arpeggiate/>'] : []),
      ],
    });
  });
  return [...small, ...struck];
}

/** MusicXML's own kind for a chord, by its intervals; the text as it was written goes with it. */
const KINDS: Record<string, string> = {
  '1P 3M 5P': 'major',
  '1P 3m 5P': 'minor',
  '1P 3m 5d': 'diminished',
  '1P 3M 5A': 'augmented',
  '1P 2M 5P': 'suspended-second',
  '1P 4P 5P': 'suspended-fourth',
  '1P 5P': 'power',
  '1P 3M 5P 6M': 'major-sixth',
  '1P 3m 5P 6M': 'minor-sixth',
  '1P 3M 5P 7m': 'dominant',
  '1P 3M 5P 7M': 'major-seventh',
  '1P 3m 5P 7m': 'minor-seventh',
  '1P 3m 5d 7m': 'half-diminished',
  '1P 3m 5d 7d': 'diminished-seventh',
  '1P 3m 5P 7M': 'major-minor',
  '1P 3M 5A 7m': 'augmented-seventh',
  '1P 3M 5P 7m 9M': 'dominant-ninth',
  '1P 3M 5P 7M 9M': 'major-ninth',
  '1P 3m 5P 7m 9M': 'minor-ninth',
  '1P 5P 7m 9M 11P': 'dominant-11th',
  '1P 3M 5P 7m 9M 13M': 'dominant-13th',
};

/** The `<harmony>` of a chord symbol. */
function harmony(symbol: string): string {
  const chord = parseChord(symbol);
  if (chord.kind !== 'chord') {
    const kind = chord.kind === 'none' ? 'none' : 'other';
    return `      <harmony><root><root-step text="">C</root-step></root><kind text="${escapeXml(symbol)}">${kind}</kind></harmony>`;
  }
  const kind = KINDS[chord.tones.map((t) => t.interval).join(' ')] ?? 'other';
  const suffix = chord.text.slice(chord.root.length).replace(/\/\s*[A-G][b#]?$/, '');
  const bass = chord.bass ? `<bass>${step('bass', chord.bass)}</bass>` : '';
  const inversion = chord.bass ? bassInversion(chord) : '';
  return `      <harmony><root>${step('root', chord.root)}</root><kind text="${escapeXml(suffix)}">${kind}</kind>${inversion}${bass}</harmony>`;
}

function bassInversion(chord: Chord): string {
  const number = chord.bass && toneFor(chord, chord.bass) ? inversionOf(chord, chord.bass) : null;
  return number ? `<inversion>${number}</inversion>` : '';
}

function step(which: 'root' | 'bass', name: string): string {
  const { step: letter, alter } = pitchParts(`${nameOf(`${name}4`)}4`);
  return `<${which}-step>${'CDEFGAB'[letter]}</${which}-step>${alter ? `<${which}-alter>${alter}</${which}-alter>` : ''}`;
}
