import { degreeOf } from '../../harmony/naming.js';
import { keyName, type Key } from '../../harmony/key.js';
import { parseChord } from '../../harmony/symbol.js';
import type { Difficulty, Load } from '../../difficulty/difficulty.js';
import type { Document } from '../../song/decisions.js';
import { meterName } from '../../time/meter.js';
import { toQuarters } from '../../time/ticks.js';
import type { Speech } from '../speech.js';
import { phrases, sentences } from '../words.js';
import type { Arrangement, Part, PartChord } from '../../arrange/arrangement.js';
import { suggestionFor } from '../../arrange/settings.js';

/** The report of the command line: plain data, times in quarter notes from the start of the music. */
export function report(doc: Document, arrangement: Arrangement, say: Speech): object {
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
    parts: arrangement.parts.map((part) => partReport(part, song.key, say)),
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
      message: say.fact(f.fact),
      fixes: f.fixes.map((x) => say.fact(x.fact)),
    })),
    totals: { leftTravel: totals.leftTravel, leftTravelRoot: totals.leftTravelRoot, pathCost: totals.pathCost },
  };
}

function partReport(part: Part, key: Key, say: Speech): object {
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
      ...(n.with ? { with: n.with } : {}),
    })),
    chords: part.chords.map((c) => chordReport(c, key, say)),
    together: part.together.map((t) => ({
      at: toQuarters(t.at),
      melody: t.melody,
      chord: t.chord,
      count: t.count,
    })),
    difficulty: difficultyReport(part.difficulty, say),
  };
}

/** The score and its reasons, for the part and for each hand. */
function difficultyReport({ score, reasons, right, left, together }: Difficulty, say: Speech): object {
  const load = (of: Load) => ({ score: of.score, reasons: of.reasons.map(say.fact) });
  return { ...load({ score, reasons }), right: load(right), left: load(left), together: load(together) };
}

function chordReport(chord: PartChord, key: Key, say: Speech): object {
  const parsed = parseChord(chord.symbol);
  return {
    at: toQuarters(chord.at),
    length: toQuarters(chord.length),
    symbol: chord.symbol,
    degree: parsed.kind === 'chord' ? degreeOf(parsed, key) : null,
    inversion: chord.inversion,
    position: say.position(chord.position),
    pitches: chord.pitches,
    fingers: chord.fingers,
    motion: chord.motion,
    common: chord.common,
    withMelody: chord.withMelody,
    why: sentences(chord.why, say),
    school: chord.school,
    spread: chord.spread,
    chordWhy: phrases(chord.chordWhy, say),
    otherChords: chord.otherChords.map((o) => ({ symbol: o.symbol, cost: o.cost, why: phrases(o.why, say) })),
    alternatives: chord.alternatives.map((a) => ({
      symbol: a.symbol,
      pitches: a.pitches,
      cost: a.cost,
      motion: a.motion,
      why: say.fact(a.why),
    })),
  };
}
