import { parseChord } from '../harmony/symbol.js';
import { toneFor } from '../harmony/naming.js';
import { findConflicts, notesOver, type NotesOver } from '../join/conflicts.js';
import { isMuddy, muddiness } from '../left-hand/costs.js';
import { momentsOf } from '../left-hand/spread.js';
import { isPlayedAsVoiced, type VoicedChord } from '../left-hand/voice.js';
import { midiOf, nameOf, type Pitch } from '../pitch/pitch.js';
import { KEYBOARDS, spanOf, type Hands } from '../song/decisions.js';
import { placeOf } from '../time/bars.js';
import { toSeconds } from '../time/ticks.js';
import { advice, conflictFixes, letGo, separationFixes, type Fix } from './fixes.js';
import { finding, type Examined, type Finding, type FindingFact } from './finding.js';
import { checkJoin } from './join-findings.js';
import { stretchAt } from './settings.js';

/** Everything worth saying about the left hand and how it lies under the right. */
export function examine(examined: Examined): Finding[] {
  const { chords, tune, bars } = examined;
  const over = notesOver(chords, tune, bars);
  return onceEach([
    ...checkVoicings(examined, over),
    ...checkPins(examined),
    ...checkHarmony(examined, over),
    ...checkJoin(examined, over),
    ...checkOctaves(examined),
  ]);
}

/** Octaves under the tune that were wished for and have no room. */
function checkOctaves(examined: Examined): Finding[] {
  return examined.withoutOctave.map(({ at, pitch, cause }) => {
    const fact: FindingFact = { code: 'finding.no-octave', pitch, place: placeOf(examined.bars, at), cause };
    const told = finding(examined, at, 'no-octave', 'note', fact, []);
    return { ...told, chordAt: null, concerns: `${told.part} ${cause}` };
  });
}

/** What concerns one thing is said once, where it comes first, with how often it comes again. */
function onceEach(found: readonly Finding[]): Finding[] {
  const first = new Map<string, number>();
  const kept: Finding[] = [];
  for (const one of found) {
    const key = one.concerns === undefined || one.severity === 'fix' ? null : `${one.rule} ${one.concerns}`;
    const at = key === null ? undefined : first.get(key);
    if (at === undefined) {
      if (key !== null) first.set(key, kept.length);
      kept.push(one);
    } else kept[at] = { ...kept[at], again: (kept[at].again ?? 0) + 1 };
  }
  return kept;
}

/** Checks what is struck against the hand, the keyboard and the low limits. */
function checkVoicings(examined: Examined, over: readonly NotesOver[]): Finding[] {
  const { song, chords, bars } = examined;
  const { hands } = examined.settings;
  const { comfortable, limit } = spanOf(hands, 'left');
  const keyboard = KEYBOARDS[hands.keys];
  const found: Finding[] = [];
  chords.forEach((chord, i) => {
    const where = { symbol: chord.symbol, place: placeOf(bars, chord.at) };
    const free: Fix[] = chord.pinned ? [letGo(chord.writtenAt)] : [];
    const ways = (figure: (midis: readonly number[]) => number) => [...free, ...lowering(over[i], hands, figure)];
    for (const keys of keysTogether(chord)) {
      const midis = keys.map(midiOf);
      const width = widthOf(midis);
      const say = (rule: string, severity: Finding['severity'], fact: FindingFact, fixes: readonly Fix[]) =>
        found.push({
          ...finding(examined, chord.at, rule, severity, fact, fixes),
          concerns: `${chord.symbol} ${keys.join(' ')}`,
        });
      if (chord.spread !== 'together')
        say('spread', 'note', { code: 'finding.spread', ...where, width, limit, spread: chord.spread }, ways(widthOf));
      else if (width > limit) say('reach', 'fix', { code: 'finding.reach', ...where, width, limit }, ways(widthOf));
      else if (width > comfortable)
        say('stretch', 'note', { code: 'finding.stretch', ...where, width, comfortable }, ways(widthOf));
      if (midis[0] < keyboard.low || midis[midis.length - 1] > keyboard.high)
        say('keyboard', 'fix', { code: 'finding.keyboard', ...where, keys: hands.keys }, [...free, advice('longer-keyboard')]);
      if (isMuddy(midis)) say('low', 'note', { code: 'finding.low', ...where }, ways(muddiness));
    }
    if (chord.thinned && isPlayedAsVoiced(chord)) {
      const { form, cause } = chord.thinned;
      const fact: FindingFact = { code: 'finding.thinned', ...where, form, cause };
      const told = finding(examined, chord.at, 'thinned', 'note', fact, [advice('melody-octave-up')]);
      found.push({ ...told, concerns: `${chord.symbol} ${form} ${cause}` });
    }
    const seconds = toSeconds(chord.length, song.tempo);
    if (!chord.restruck && chord.motion > 0 && seconds < TOO_FAST)
      found.push(
        finding(examined, chord.at, 'fast', 'note', { code: 'finding.fast', ...where, seconds }, [
          {
            fact: { code: 'fix.skip', symbol: chord.symbol },
            action: { code: 'edit.leave-out', at: chord.writtenAt, symbol: chord.symbol },
          },
        ]),
      );
  });
  return found;
}

const widthOf = (midis: readonly number[]): number => midis[midis.length - 1] - midis[0];

/** The keys that a chord asks of the hand at once, bottom-up: all of them, or what its texture strikes moment by moment. */
function keysTogether({ pitches, struck, spread }: VoicedChord): readonly (readonly Pitch[])[] {
  return spread === 'together' ? momentsOf(struck).map((m) => m.pitches) : [pitches];
}

/** Ways out that lower the figure which a finding speaks of: for a chord that is struck as it was voiced. */
function lowering(over: NotesOver, hands: Hands, figure: (midis: readonly number[]) => number): Fix[] {
  if (!isPlayedAsVoiced(over.chord)) return [];
  const now = figure(over.chord.pitches.map(midiOf));
  return separationFixes(over, hands, (midis) => figure(midis) < now);
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
  return over.flatMap((one): Finding[] => {
    while (h + 1 < harmony.length && harmony[h + 1].at <= one.chord.at) h++;
    const [worst] = findConflicts([one]).filter((c) => !c.passing);
    // A right hand that stays on its note is meant to rub.
    if (!worst || stretchAt(settings, one.chord.at).stay !== null) return [];
    const { note, against, kind, passing } = worst;
    const where = { symbol: one.chord.symbol, place: placeOf(bars, worst.at) };
    const fact: FindingFact = { code: 'finding.conflict', note, against, kind, passing, ...where };
    const fixes = conflictFixes(worst, one, harmony[h], settings.hands);
    const told = finding(examined, worst.at, 'conflict', 'warn', fact, fixes, one.chord.at);
    return [{ ...told, concerns: `${told.part} ${one.chord.symbol} ${note} ${against}` }];
  });
}
