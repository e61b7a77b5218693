import { divide } from '../src/divide/divide.js';
import { weighChords } from '../src/harmony/choices.js';
import { evidenceOf, findKey } from '../src/harmony/find-key.js';
import { suggestChords } from '../src/harmony/suggest.js';
import { parseChord } from '../src/harmony/symbol.js';
import { pitchClass } from '../src/pitch/pitch.js';
import { newDocument } from '../src/song/decisions.js';
import { layBars } from '../src/time/bars.js';
import { barTicks } from '../src/time/meter.js';
import { TICKS_PER_QUARTER as Q } from '../src/time/ticks.js';
import { makeTune, type MadeTune } from './made-tunes.js';

/** How well made tunes are understood: shares from 0 to 1. */
export interface MadeFigures {
  /** Tunes whose tonic and mode are found without a signature. */
  readonly modes: number;
  /** Half beats whose chord has the root that the tune was made over, as it is chosen and among the first three. */
  readonly chords: number;
  readonly amongThree: number;
  /** Beginnings of phrases that are beginnings of parts and the other way round, as their harmonic mean. */
  readonly phrases: number;
}

const rootOf = (symbol: string): number => {
  const chord = parseChord(symbol);
  return chord.kind === 'chord' ? pitchClass(chord.root) : -1;
};

/** The figures over so many made tunes. */
export function madeFigures(many: number): MadeFigures {
  const sums = { modes: 0, chosen: 0, among: 0, places: 0, hit: 0, extra: 0, missed: 0 };
  for (let i = 0; i < many; i++) {
    const tune = makeTune(i);
    if (isFound(tune)) sums.modes++;
    const ends = addPhrases(tune, sums);
    addChords(tune, ends, sums);
  }
  return {
    modes: sums.modes / many,
    chords: sums.chosen / sums.places,
    amongThree: sums.among / sums.places,
    phrases: (2 * sums.hit) / (2 * sums.hit + sums.extra + sums.missed),
  };
}

/** True where key and mode of a tune are found from its notes alone. */
function isFound({ song, key }: MadeTune): boolean {
  const heard = evidenceOf(song.melody);
  const read = findKey(heard, heard[heard.length - 1].pitchClass, null);
  return read.mode === key.mode && pitchClass(read.tonic) === pitchClass(key.tonic);
}

/**
 * Counts cuts that are phrases, cuts that are none, and phrases that run on. Half of a phrase may be a part; so may two phrases of at
 * most four bars and sixteen notes together.
 */
function addPhrases({ song, phrases }: MadeTune, sums: { hit: number; extra: number; missed: number }): number[] {
  const parts = divide(song, layBars(song), newDocument(song).choices);
  const bar = barTicks(song.meters[0]);
  const bounds = [0, ...phrases, song.length];
  const halves = bounds.slice(1).map((end, i) => (bounds[i] + end) / 2);
  const cuts = parts.slice(1).map((p) => p.start);
  const near = Math.max(bar / 2, Q);
  sums.hit += cuts.filter((at) => phrases.includes(at)).length;
  sums.extra += cuts.filter((at) => !phrases.includes(at) && !halves.some((half) => Math.abs(half - at) <= near)).length;
  sums.missed += phrases.filter((at) => {
    const around = parts.find((p) => p.start < at && p.end > at);
    if (!around) return false;
    const notes = song.melody.filter((n) => n.at >= around.start && n.at < around.end).length;
    return around.end - around.start > 4.5 * bar || notes > 16;
  }).length;
  return parts.map((p) => p.end);
}

function addChords(
  { song, chords }: MadeTune,
  ends: readonly number[],
  sums: { chosen: number; among: number; places: number },
): void {
  const bars = layBars(song);
  const task = { tune: song.melody, bars, key: song.key, tempo: song.tempo, ends };
  const range = { from: 0, to: song.length, fixed: new Map() };
  const row = suggestChords({ ...task, ...range, vocabulary: 'triads', rhythm: 'proposed' });
  const standing = row.map((c, i) => ({ ...c, length: (row[i + 1]?.at ?? song.length) - c.at }));
  const weighed = weighChords(task, standing);
  for (let at = chords[0].at; at < song.length; at += Q / 2) {
    const wanted = rootOf(chords.findLast((c) => c.at <= at)?.symbol ?? '');
    const found = weighed.findLast((c) => c.at <= at);
    sums.places++;
    if (!found) continue;
    const chosen = rootOf(found.symbol) === wanted;
    if (chosen) sums.chosen++;
    if (chosen || found.others.slice(0, 2).some((o) => rootOf(o.symbol) === wanted)) sums.among++;
  }
}
