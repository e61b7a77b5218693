import { degreeOf } from '../harmony/naming.js';
import { keyName } from '../harmony/key.js';
import { parseChord } from '../harmony/symbol.js';
import type { Difficulty } from '../difficulty/difficulty.js';
import type { Document } from '../song/decisions.js';
import { meterName } from '../time/meter.js';
import { toQuarters } from '../time/ticks.js';
import type { Arrangement, Part, PartChord } from './arrangement.js';
import { suggestionFor } from './harmonise.js';

/** The report of the command line: plain data, times in quarter notes from the start of the music. */
export function report(doc: Document, arrangement: Arrangement): object {
  const { song, bars, findings, totals } = arrangement;
  return {
    version: 1,
    song: {
      title: song.title,
      key: keyName(song.key),
      time: meterName(song.meters[0]),
      tempo: song.tempo,
      bars: bars.filter((b) => b.number > 0).length,
      pickup: toQuarters(song.pickup),
      melodyNotes: song.melody.length,
      chordsGiven: suggestionFor(doc) === null,
    },
    parts: arrangement.parts.map((part) => partReport(part, song.key)),
    score: arrangement.score.map((n) => ({
      hand: n.hand,
      at: toQuarters(n.at),
      length: toQuarters(n.length),
      pitch: n.pitch,
      finger: n.finger,
      role: n.role,
      part: n.part,
    })),
    findings: findings.map((f) => ({
      rule: f.rule,
      severity: f.severity,
      at: f.at === null ? null : toQuarters(f.at),
      part: f.part,
      message: f.message,
      fixes: f.fixes.map((x) => x.text),
    })),
    totals: { leftTravel: totals.leftTravel, leftTravelRoot: totals.leftTravelRoot, pathCost: totals.pathCost },
  };
}

function partReport(part: Part, key: { tonic: string; mode: 'major' | 'minor' }): object {
  return {
    number: part.number,
    label: part.label,
    start: toQuarters(part.start),
    end: toQuarters(part.end),
    repeats: part.repeats && {
      part: part.repeats.part,
      kind: part.repeats.kind,
      differsFrom: part.repeats.differsFrom === null ? null : toQuarters(part.repeats.differsFrom),
      steps: part.repeats.steps,
    },
    melody: part.melody.map((n) => ({
      at: toQuarters(n.at),
      length: toQuarters(n.length),
      pitch: n.pitch,
      finger: n.finger,
      lyric: n.lyric ? n.lyric.text + (n.lyric.joins ? '-' : '') : null,
    })),
    chords: part.chords.map((c) => chordReport(c, key)),
    together: part.together.map((t) => ({
      at: toQuarters(t.at),
      melody: t.melody,
      chord: t.chord,
      count: t.count,
    })),
    difficulty: difficultyReport(part.difficulty),
  };
}

/** The score and its reasons, for the part and for each hand. */
function difficultyReport({ score, reasons, right, left, together }: Difficulty): object {
  return { score, reasons, right, left, together };
}

function chordReport(chord: PartChord, key: { tonic: string; mode: 'major' | 'minor' }): object {
  const parsed = parseChord(chord.symbol);
  return {
    at: toQuarters(chord.at),
    length: toQuarters(chord.length),
    symbol: chord.symbol,
    degree: parsed.kind === 'chord' ? degreeOf(parsed, key) : null,
    inversion: chord.inversion,
    position: chord.position,
    pitches: chord.pitches,
    fingers: chord.fingers,
    motion: chord.motion,
    common: chord.common,
    withMelody: chord.withMelody,
    why: chord.why,
    school: chord.school,
    spread: chord.spread,
    chordWhy: chord.chordWhy,
    otherChords: chord.otherChords,
    alternatives: chord.alternatives.map((a) => ({
      symbol: a.symbol,
      pitches: a.pitches,
      cost: a.cost,
      motion: a.motion,
      why: a.why,
    })),
  };
}
