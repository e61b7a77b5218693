import { parseChord } from '../harmony/symbol.js';
import { toneFor } from '../harmony/naming.js';
import { conflictSentence, findConflicts, notesOver, type NotesOver } from '../join/conflicts.js';
import { muddiness } from '../left-hand/costs.js';
import { midiOf, nameOf } from '../pitch/pitch.js';
import { KEYBOARDS, spanOf } from '../song/decisions.js';
import { capital, placeName } from '../time/bars.js';
import { toSeconds } from '../time/ticks.js';
import { advice, conflictFixes, letGo, roomFixes, type Fix } from './fixes.js';
import { finding, type Examined, type Finding } from './finding.js';
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
  const { doc, chords, bars } = examined;
  const { comfortable, limit } = spanOf(doc.hands, 'left');
  const keyboard = KEYBOARDS[doc.hands.keys];
  const found: Finding[] = [];
  chords.forEach((chord, i) => {
    const midis = chord.pitches.map(midiOf);
    const span = midis[midis.length - 1] - midis[0];
    const place = placeName(bars, chord.at);
    const say = (rule: string, severity: Finding['severity'], message: string, fixes: readonly Fix[]) =>
      found.push(finding(examined, chord.at, rule, severity, message, fixes));
    const title = `${chord.symbol} at ${place}`;
    const free: Fix[] = chord.pinned ? [letGo(chord.writtenAt, 'let it find its place')] : [];
    const room = () => roomFixes(over[i], doc.hands);
    if (chord.spread !== 'together') {
      const how = chord.spread === 'broken' ? 'broken, the low note first' : 'rolled from the bottom';
      const message = `${title} is wider than this hand (${span} half steps against ${limit}): it is ${how}.`;
      if (!chord.again) say('spread', 'note', message, room());
    } else if (span > limit) {
      say('reach', 'fix', `${title} spans ${span} half steps; this hand reaches ${limit}.`, [...free, ...room()]);
    } else if (span > comfortable && !chord.again) {
      const message = `${title} spans ${span} half steps, past the comfortable ${comfortable}. Never force a stretch.`;
      say('stretch', 'note', message, room());
    }
    if (midis[0] < keyboard.low || midis[midis.length - 1] > keyboard.high)
      say('keyboard', 'fix', `${title} leaves the ${doc.hands.keys} keys of this keyboard.`, [
        ...free,
        advice('a longer keyboard'),
      ]);
    if (muddiness(midis) > 0)
      say('low', 'note', `${title} lies low for such close notes and may sound muddy.`, [...free, ...room()]);
    if (chord.thinned && !chord.again)
      say('thinned', 'note', `${title} is thinned. ${chord.thinned}`, [advice('the tune up an octave')]);
    const seconds = toSeconds(chord.length, doc.song.tempo);
    if (!chord.again && chord.motion > 0 && seconds < TOO_FAST)
      say('fast', 'note', `${title} lasts ${seconds.toFixed(1)} seconds, hardly time to grasp it. It may be skipped.`, [
        { text: `skip ${chord.symbol}`, action: { kind: 'skip', at: chord.writtenAt } },
      ]);
  });
  return found;
}

/** Seconds under which a chord that moves the hand is hard to grasp. */
const TOO_FAST = 0.5;

/** Pinned keys that no longer mean their chord, and pins where no chord is struck any more. */
function checkPins(examined: Examined): Finding[] {
  const { doc, chords, bars } = examined;
  const struck = new Set(chords.map((c) => c.writtenAt));
  const lost = doc.choices.pins
    .filter((p) => !struck.has(p.at) && p.at < doc.song.length)
    .map((p) => {
      const message = `${p.pitches.join(' ')} is pinned at ${placeName(bars, p.at)}, where no chord is struck now.`;
      return {
        ...finding(examined, p.at, 'pin-lost', 'warn', message, [letGo(p.at, 'let it go')]),
        chordAt: null,
      };
    });
  const foreign = chords.flatMap((chord) => {
    const parsed = parseChord(chord.symbol);
    if (!chord.pinned || parsed.kind !== 'chord') return [];
    const names = [...new Set(chord.pitches.map(nameOf))];
    const strangers = names.filter((n) => toneFor(parsed, n) === null && n !== parsed.bass);
    if (strangers.length === 0) return [];
    const message = `${strangers.join(' and ')}, which you pinned at ${placeName(bars, chord.at)}, ${strangers.length === 1 ? 'is' : 'are'} not in ${chord.symbol}.`;
    return [finding(examined, chord.at, 'pin-foreign', 'warn', message, [letGo(chord.writtenAt, 'let it find its place')])];
  });
  return [...lost, ...foreign];
}

/** Where tune and chord grate; one finding for each chord, the longest note first. */
function checkHarmony(examined: Examined, over: readonly NotesOver[]): Finding[] {
  const { harmony, bars, doc } = examined;
  let h = 0;
  return over.flatMap((one) => {
    while (h + 1 < harmony.length && harmony[h + 1].at <= one.chord.at) h++;
    const [worst] = findConflicts([one]).filter((c) => !c.passing);
    if (!worst) return [];
    const message = `${capital(placeName(bars, worst.at))}: ${conflictSentence(worst)}`;
    return [
      finding(examined, worst.at, 'conflict', 'warn', message, conflictFixes(worst, one, harmony[h], doc.hands), one.chord.at),
    ];
  });
}
