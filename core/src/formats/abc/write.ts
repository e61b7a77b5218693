import { signatureOf, type Key, type Mode } from '../../harmony/key.js';
import { pitchParts, type Pitch } from '../../pitch/pitch.js';
import { keysOf, type Song } from '../../song/song.js';
import { layBars } from '../../time/bars.js';
import { TICKS_PER_QUARTER, commonDivisor, type Ticks } from '../../time/ticks.js';
import { ornamentsOf } from '../ornaments.js';
import { escapeAbc } from './text.js';
import { barEvents, breathsOf, fermatasOf, slursOf, splitForTuplets, type Piece } from '../pieces.js';

const SHARPS = 'FCGDAEB';
const UNIT = TICKS_PER_QUARTER / 2;

const MODES: Readonly<Record<Mode, string>> = {
  major: '',
  minor: 'm',
  dorian: 'dor',
  mixolydian: 'mix',
  phrygian: 'phr',
  lydian: 'lyd',
};

/** Writes the tune with its chords and words as ABC, four bars a line. */
export function writeAbc(song: Song): string {
  const { beats, unit } = song.meters[0];
  const head = [
    'X:1',
    `T:${escapeAbc(song.title, 'header')}`,
    ...(song.composer ? [`C:${escapeAbc(song.composer, 'header')}`] : []),
    `M:${beats}/${unit}`,
    'L:1/8',
    `Q:1/4=${song.tempo}`,
    `K:${song.key.tonic}${MODES[song.key.mode]}`,
  ];
  const signs = { ...slursOf(song), ornaments: ornamentsOf(song), fermatas: fermatasOf(song), breaths: breathsOf(song) };
  const bars = layBars(song);
  const events = barEvents(song, bars);
  const lines: string[] = [];
  let music = '';
  let words = '';
  let meter = `${beats}/${unit}`;
  let inLine = 0;
  bars.forEach((bar, i) => {
    const now = `${bar.meter.beats}/${bar.meter.unit}`;
    if (now !== meter) music += `[M:${now}]`;
    meter = now;
    const section = song.marks.find((m) => m.kind === 'section' && m.text && m.at === bar.start);
    if (section) music += `[P:${escapeAbc(section.text ?? '', 'inline')}]`;
    music += barText(events[i], song.key, bar.start, signs);
    words += barWords(events[i]);
    const last = i === bars.length - 1;
    music += last ? '|]' : '|';
    inLine += bar.number > 0 ? 1 : 0;
    if (inLine === 4 || last) {
      lines.push(music);
      if (words.replace(/[~\s]/g, '')) lines.push(`w:${words}`);
      music = words = '';
      inLine = 0;
    }
  });
  return `${[...head, ...lines].join('\n')}\n`;
}

/** Signs of the tune by their places. */
type Signs = ReturnType<typeof slursOf> & {
  readonly ornaments: ReturnType<typeof ornamentsOf>;
  readonly fermatas: ReadonlySet<Ticks>;
  readonly breaths: ReadonlySet<Ticks>;
};

function barText(pieces: readonly Piece[], key: Key, start: Ticks, signs: Signs): string {
  const altered = new Map<string, number>();
  return splitForTuplets(pieces)
    .map((group) => {
      const open = group.tuplet ? `(${group.tuplet.actual}:${group.tuplet.normal}:${group.pieces.length}` : '';
      const scale = group.tuplet ? group.tuplet.actual / group.tuplet.normal : 1;
      return open + group.pieces.map((p) => withSigns(p, start, signs, pieceText(p, key, altered, scale))).join('');
    })
    .join(' ');
}

/** A piece with the ends of its slurs and its signs. */
function withSigns(p: Piece, start: Ticks, signs: Signs, { chord, note }: { chord: string; note: string }): string {
  if (p.pitch === null) return chord + note;
  const at = start + p.at;
  const begins = !p.continues;
  const ornament = begins ? signs.ornaments.get(at) : undefined;
  const held = begins && signs.fermatas.has(at) ? '!fermata!' : '';
  const breath = !p.tiedOn && signs.breaths.has(at + p.length) ? '!breath!' : '';
  const over = `${ornament ? `!${ornament.abc[0]}!` : ''}${held}${breath}`;
  const opens = begins && signs.slurStarts.has(at) ? '(' : '';
  return `${opens}${chord}${over}${note}${!p.tiedOn && signs.slurEnds.has(at + p.length) ? ')' : ''}`;
}

function pieceText(p: Piece, key: Key, altered: Map<string, number>, scale: number): { chord: string; note: string } {
  const chord = p.chord ? `"${escapeAbc(p.chord, 'chord')}"` : '';
  const graces = p.graces.length > 0 ? `{${p.graces.map((g) => pitchText(g, key, altered)).join('')}}` : '';
  const note = p.pitch === null ? 'z' : struck(p.with, p.pitch, key, altered);
  return { chord, note: `${graces}${note}${lengthText(p.length * scale)}${p.tiedOn ? '-' : ''}` };
}

/** A note, or several in the brackets of notes struck together, bottom-up. */
function struck(beside: readonly Pitch[], pitch: Pitch, key: Key, altered: Map<string, number>): string {
  const all = keysOf({ pitch, with: beside.length > 0 ? [...beside] : undefined });
  const texts = all.map((p) => pitchText(p, key, altered)).join('');
  return all.length > 1 ? `[${texts}]` : texts;
}

function pitchText(pitch: Pitch, key: Key, altered: Map<string, number>): string {
  const { step, alter, octave } = pitchParts(pitch);
  const letter = 'CDEFGAB'[step];
  const place = `${letter}${octave}`;
  const inForce = altered.get(place) ?? keyAlter(letter, key);
  let sign = '';
  if (alter !== inForce) {
    sign = alter > 0 ? '^'.repeat(alter) : alter < 0 ? '_'.repeat(-alter) : '=';
    altered.set(place, alter);
  }
  const body = octave >= 5 ? letter.toLowerCase() + "'".repeat(octave - 5) : letter + ','.repeat(4 - octave);
  return sign + body;
}

function keyAlter(letter: string, key: Key): number {
  const fifths = signatureOf(key);
  const place = SHARPS.indexOf(letter);
  if (fifths > 0) return place < fifths ? 1 : 0;
  return 6 - place < -fifths ? -1 : 0;
}

function lengthText(ticks: Ticks): string {
  const ticksWhole = Math.round(ticks);
  const g = commonDivisor(ticksWhole, UNIT);
  const over = ticksWhole / g;
  const under = UNIT / g;
  if (under === 1) return over === 1 ? '' : String(over);
  return `${over === 1 ? '' : over}/${under}`;
}

/**
 * The words of a bar on its notes. A note without a syllable, or tied on, gets "~", a syllable that is blank: the
 * usual "*" is taken by a rest in front of it in some readers.
 */
function barWords(pieces: readonly Piece[]): string {
  let words = '';
  for (const p of pieces) {
    if (p.pitch === null) continue;
    if (p.lyric) words += escapeAbc(p.lyric.text, 'words').replaceAll(' ', '~') + (p.lyric.joins ? '-' : ' ');
    else words += '~ ';
  }
  return words;
}
