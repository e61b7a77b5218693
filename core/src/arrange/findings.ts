import { parseChord } from '../harmony/symbol.js';
import { toneFor } from '../harmony/naming.js';
import { findConflicts, notesOver, type NotesOver } from '../join/conflicts.js';
import { muddiness } from '../left-hand/costs.js';
import { midiOf, nameOf } from '../pitch/pitch.js';
import { KEYBOARDS, spanOf } from '../song/decisions.js';
import { placeOf } from '../time/bars.js';
import { toSeconds } from '../time/ticks.js';
import { advice, conflictFixes, letGo, separationFixes, type Fix } from './fixes.js';
import { finding, type Examined, type Finding, type FindingFact } from './finding.js';
import { checkJoin } from './join-findings.js';

/** Everything worth saying about the left hand and how it lies under the right. */
export function examine(examined: Examined): Finding[] {
  const { chords, tune, bars } = examined;
  const over = notesOver(chords, tune, bars);
  return [
    ...checkVoicings(examined, over),
    ...checkPins(examined),
    ...checkHarmony(examined, over),
    ...checkJoin(examined, over),
  ];
}

/** Checks every voiced chord against the hand, the keyboard and the low limits. */
function checkVoicings(examined: Examined, over: readonly NotesOver[]): Finding[] {
  const { song, chords, bars } = examined;
  const { hands } = examined.settings;
  const { comfortable, limit } = spanOf(hands, 'left');
  const keyboard = KEYBOARDS[hands.keys];
  const found: Finding[] = [];
  chords.forEach((chord, i) => {
    const midis = chord.pitches.map(midiOf);
    const span = midis[midis.length - 1] - midis[0];
    const where = { symbol: chord.symbol, place: placeOf(bars, chord.at) };
    const say = (rule: string, severity: Finding['severity'], fact: FindingFact, fixes: readonly Fix[]) =>
      found.push(finding(examined, chord.at, rule, severity, fact, fixes));
    const free: Fix[] = chord.pinned ? [letGo(chord.writtenAt)] : [];
    const apart = () => separationFixes(over[i], hands);
    if (chord.spread !== 'together') {
      const { spread } = chord;
      if (!chord.restruck) say('spread', 'note', { code: 'finding.spread', ...where, width: span, limit, spread }, apart());
    } else if (span > limit) {
      say('reach', 'fix', { code: 'finding.reach', ...where, width: span, limit }, [...free, ...apart()]);
    } else if (span > comfortable && !chord.restruck) {
      say('stretch', 'note', { code: 'finding.stretch', ...where, width: span, comfortable }, apart());
    }
    if (midis[0] < keyboard.low || midis[midis.length - 1] > keyboard.high)
      say('keyboard', 'fix', { code: 'finding.keyboard', ...where, keys: hands.keys }, [...free, advice('longer-keyboard')]);
    if (muddiness(midis) > 0) say('low', 'note', { code: 'finding.low', ...where }, [...free, ...apart()]);
    if (chord.thinned && !chord.restruck) {
      const { form, cause } = chord.thinned;
      say('thinned', 'note', { code: 'finding.thinned', ...where, form, cause }, [advice('melody-octave-up')]);
    }
    const seconds = toSeconds(chord.length, song.tempo);
    if (!chord.restruck && chord.motion > 0 && seconds < TOO_FAST)
      say('fast', 'note', { code: 'finding.fast', ...where, seconds }, [
        {
          fact: { code: 'fix.skip', symbol: chord.symbol },
          action: { code: 'edit.leave-out', at: chord.writtenAt, symbol: chord.symbol },
        },
      ]);
  });
  return found;
}

/** Seconds under which a chord that moves the hand is hard to grasp. */
const TOO_FAST = 0.5;

/** Pinned keys that no longer mean their chord, and pins where no chord is struck any more. */
function checkPins(examined: Examined): Finding[] {
  const { settings, song, chords, bars } = examined;
  const struck = new Set(chords.map((c) => c.writtenAt));
  const lost = [...settings.pins]
    .filter(([at]) => !struck.has(at) && at < song.length)
    .map(([at, pitches]) => {
      const fact: FindingFact = { code: 'finding.pin-lost', pitches, place: placeOf(bars, at) };
      return { ...finding(examined, at, 'pin-lost', 'warn', fact, [letGo(at)]), chordAt: null };
    });
  const foreign = chords.flatMap((chord) => {
    const parsed = parseChord(chord.symbol);
    if (!chord.pinned || parsed.kind !== 'chord') return [];
    const names = [...new Set(chord.pitches.map(nameOf))];
    const strangers = names.filter((n) => toneFor(parsed, n) === null && n !== parsed.bass);
    if (strangers.length === 0) return [];
    const where = { symbol: chord.symbol, place: placeOf(bars, chord.at) };
    const fact: FindingFact = { code: 'finding.pin-foreign', names: strangers, ...where };
    return [finding(examined, chord.at, 'pin-foreign', 'warn', fact, [letGo(chord.writtenAt)])];
  });
  return [...lost, ...foreign];
}

/** Where tune and chord grate; one finding for each chord, the longest note first. */
function checkHarmony(examined: Examined, over: readonly NotesOver[]): Finding[] {
  const { harmony, bars, settings } = examined;
  let h = 0;
  return over.flatMap((one) => {
    while (h + 1 < harmony.length && harmony[h + 1].at <= one.chord.at) h++;
    const [worst] = findConflicts([one]).filter((c) => !c.passing);
    if (!worst) return [];
    const { note, against, kind, passing } = worst;
    const where = { symbol: one.chord.symbol, place: placeOf(bars, worst.at) };
    const fact: FindingFact = { code: 'finding.conflict', note, against, kind, passing, ...where };
    const fixes = conflictFixes(worst, one, harmony[h], settings.hands);
    return [finding(examined, worst.at, 'conflict', 'warn', fact, fixes, one.chord.at)];
  });
}
