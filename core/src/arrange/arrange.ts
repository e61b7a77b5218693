import { hardestOf } from '../difficulty/difficulty.js';
import { tempoCourse, withStops } from '../fills/close.js';
import { dynamicMarks, type LoudStretch } from '../fills/dynamics.js';
import { pedalPoints } from '../fills/pedal.js';
import { leftJumps, rightJumps } from '../join/jumps.js';
import type { Homes } from '../left-hand/problem.js';
import { spanOf, type Document } from '../song/decisions.js';
import { swingShare } from '../time/swing.js';
import type { Arrangement } from './arrangement.js';
import { partFinder } from './finding.js';
import { examine } from './findings.js';
import { leftSide, rightSide } from './hands.js';
import { materialOf } from './material.js';
import { partsOf } from './parts.js';
import { scoreOf } from './score.js';
import { stretchAt, settingsOf } from './settings.js';

/**
 * Computes the arrangement of a document: parts, voicings, fingers, joins, difficulty, score and findings. Pure and
 * deterministic; the time it takes grows linearly with the song. A stretch of a longer song is given the keys that symbols have there.
 */
export function arrange(doc: Document, homes?: Homes): Arrangement {
  const settings = { ...settingsOf(doc), homes };
  const material = materialOf(doc.song, settings);
  const { bars, stretches, song, harmony, played } = material;
  const left = leftSide(settings, material);
  const right = rightSide(settings, material, left);
  const { places } = right.fingered;
  const jumps = [
    ...leftJumps(left.struck, song.tempo, spanOf(settings.hands, 'left').limit),
    ...rightJumps(places, song.tempo),
  ].sort((a, b) => a.at - b.at);
  const parts = partsOf(settings, material, left, right, jumps);
  const loud = stretches.map(({ start, end }): LoudStretch => {
    const { loudness, swell } = stretchAt(settings, start);
    return { start, end, loudness, swell };
  });
  const score = scoreOf(settings, parts, loud);
  const examined = examine({
    settings,
    song: doc.song,
    bars,
    chords: left.struck,
    harmony,
    tune: played,
    places,
    jumps,
    parts,
    partOf: partFinder(parts),
    right: score.filter((n) => n.hand === 'right'),
    withoutOctave: right.withoutOctave,
  });
  return {
    song,
    bars,
    parts,
    score,
    swing: swingShare(settings.feel, song.tempo),
    playMode: settings.playMode,
    strikes: left.strikes,
    dynamics: dynamicMarks(loud),
    tempo: withStops(tempoCourse(song, bars, settings.close.slower), song, bars),
    pedal: pedalPoints(left.chords, (at) => stretchAt(settings, at).pedal),
    sections: material.sections,
    hardest: hardestOf(parts),
    findings: [...material.findings, ...examined].sort((a, b) => (a.at ?? 0) - (b.at ?? 0)),
    homes: left.voicingPath.homes,
    totals: {
      leftTravel: left.voicingPath.travel,
      leftTravelRoot: left.voicingPath.travelRoot,
      pathCost: Math.round(left.voicingPath.cost * 1000) / 1000,
      motionWeight: left.voicingPath.motionWeight,
    },
  };
}
