import { reachableBy } from '../fingers/chords.js';
import { parseChord } from '../harmony/symbol.js';
import { midiOf, octaveUp, type Pitch } from '../pitch/pitch.js';
import { playedInner } from '../right-hand/inner.js';
import { withStays } from '../right-hand/stay.js';
import { placeOf, type Bar } from '../time/bars.js';
import { KEYBOARDS, type Hands } from '../song/decisions.js';
import { straighten, type TuneStretch } from '../song/rhythm.js';
import { playedAsWritten } from '../left-hand/written.js';
import { besides, keysOf, onKeys, type KeyNote, type Song } from '../song/song.js';
import type { EndingTrouble } from './endings.js';
import { advice, type Fix } from './fixes.js';
import type { Finding, FindingFact } from './finding.js';
import type { HarmonisedChord } from './harmonise.js';
import { stretchAt, type Settings } from './settings.js';

/**
 * The tune as it is played: straightened, in another octave or resting on its notes where that was asked for. Stretches that
 * an octave would take off the keyboard stay where they are, and a finding says so.
 */
export function playedTune(
  song: Song,
  settings: Settings,
  written: Song['melody'],
  stretches: readonly TuneStretch[],
  bars: readonly Bar[],
): { readonly played: Song['melody']; readonly findings: Finding[] } {
  const { hands } = settings;
  const findings: Finding[] = [];
  const plainly = settings.stretches.some((s) => s.rhythm === 'plain');
  const raised = settings.stretches.some((s) => s.octave !== 0);
  let played = written;
  if (plainly || raised) {
    const outside = outsideOf(hands);
    played = stretches.flatMap((stretch) => {
      const notes = written.filter((n) => n.at >= stretch.start && n.at < stretch.end);
      const { rhythm, octave: octaves } = stretchAt(settings, stretch.start);
      const even = rhythm === 'plain' ? straighten(notes, stretch, bars) : notes;
      if (octaves === 0) return even;
      const moved = even.map((n) => onKeys(n, (pitch) => octaveUp(pitch, octaves)));
      const off = moved.find((n) => outside(n.pitch));
      if (!off) return moved;
      const fact: FindingFact = { code: 'finding.octave-kept', pitch: off.pitch, place: placeOf(bars, off.at), keys: hands.keys };
      findings.push(finding('octave-kept', 'warn', off.at, fact, LONGER));
      return even;
    });
  }
  const stays = settings.stretches.flatMap(({ start, end, stay }) =>
    stay && start < song.length ? [{ start, end: Math.min(end, song.length), stay }] : [],
  );
  if (stays.length > 0) played = withStays(played, stays, song.key, bars, KEYBOARDS[hands.keys]);
  return { played, findings };
}

/** What is to be said of the chords as they were brought in or found. */
export function sayChords(song: Song, chords: readonly HarmonisedChord[], bars: readonly Bar[]): Finding[] {
  const findings = chords
    .filter((c) => parseChord(c.symbol).kind === 'unread')
    .map((c) => {
      const fact: FindingFact = { code: 'finding.chord-unread', symbol: c.symbol, place: placeOf(bars, c.at) };
      return finding('chord-unread', 'warn', c.at, fact, [advice('usual-symbol')]);
    });
  const suggested = chords.filter((c) => c.source === 'suggested').length;
  if (suggested > 0 && song.chords.length === 0)
    findings.push(finding('chords-suggested', 'note', null, { code: 'finding.chords-suggested', chords: suggested }, []));
  if (chords.length === 0)
    findings.push(finding('no-chords', 'warn', null, { code: 'finding.no-chords' }, [advice('write-chord')]));
  return findings;
}

/** What is to be said of endings that could not be played. */
export function sayEndings(troubles: readonly EndingTrouble[], bars: readonly Bar[]): Finding[] {
  return troubles.map(({ at, obstacle }) =>
    finding('ending-left-out', 'note', at, { code: 'finding.ending-left-out', place: placeOf(bars, at), obstacle }, []),
  );
}

function finding(
  rule: string,
  severity: Finding['severity'],
  at: number | null,
  fact: FindingFact,
  fixes: readonly Fix[],
): Finding {
  return { rule, severity, at, part: null, chordAt: at, fact, fixes };
}

const LONGER = [advice('longer-keyboard'), advice('another-key')];

/** Puts a tune that runs off a short keyboard onto it: as a whole by octaves where that helps, else note by note. */
export function fitTune(
  { melody }: Song,
  hands: Hands,
  bars: readonly Bar[],
): { readonly written: Song['melody']; readonly findings: Finding[] } {
  const outside = outsideOf(hands);
  const first = melody.find((n) => outside(n.pitch));
  if (!first) return { written: melody, findings: [] };
  const off = { pitch: first.pitch, place: placeOf(bars, first.at), keys: hands.keys };
  for (const octaves of [-1, 1, -2, 2]) {
    const moved = melody.map((n) => onKeys(n, (pitch) => octaveUp(pitch, octaves)));
    if (moved.some((n) => outside(n.pitch))) continue;
    const fact: FindingFact = { code: 'finding.tune-moved', ...off, octaves };
    return { written: moved, findings: [finding('tune-moved', 'warn', first.at, fact, LONGER)] };
  }
  const { low } = KEYBOARDS[hands.keys];
  const written = melody.map((n) => {
    if (!outside(n.pitch)) return n;
    let octaves = 0;
    const moved = () => octaveUp(n.pitch, octaves);
    while (outside(moved())) octaves += midiOf(moved()) < low ? 1 : -1;
    return onKeys(n, (pitch) => octaveUp(pitch, octaves));
  });
  return { written, findings: [finding('tune-folded', 'warn', first.at, { code: 'finding.tune-folded', ...off }, LONGER)] };
}

function outsideOf(hands: Hands): (pitch: Pitch) => boolean {
  const { low, high } = KEYBOARDS[hands.keys];
  return (pitch) => midiOf(pitch) < low || midiOf(pitch) > high;
}

/**
 * The tune without those of the notes struck with it that the hand does not reach or the keyboard does not have: the farthest are left
 * out first, and a finding says so for each place. An outline, or a song that is sung, is the tune alone.
 */
export function reachableTune(
  tune: Song['melody'],
  { hands, playMode }: Pick<Settings, 'hands' | 'playMode'>,
  bars: readonly Bar[],
): { readonly tune: Song['melody']; readonly findings: Finding[] } {
  const findings: Finding[] = [];
  if (!tune.some((n) => n.with)) return { tune, findings };
  if (playMode !== 'arranged') return { tune: tune.map((n) => besides(n, [])), findings };
  const reachable = reachableBy(hands, 'right');
  const outside = outsideOf(hands);
  const within = tune.map((note) => {
    if (!note.with) return note;
    const beside = note.with.filter((pitch) => !outside(pitch));
    while (beside.length > 0 && !reachable(keysOf({ ...note, with: beside }).map(midiOf)))
      beside.splice(farthest(note.pitch, beside), 1);
    if (beside.length === note.with.length) return note;
    const left = note.with.filter((pitch) => !beside.includes(pitch));
    const fact: FindingFact = { code: 'finding.wide-stack', pitches: keysOf(note), left, place: placeOf(bars, note.at) };
    findings.push(finding('wide-stack', 'warn', note.at, fact, [advice('another-key')]));
    return besides(note, beside);
  });
  return { tune: within, findings };
}

/** The second voice of the right hand as it is played, and what is to be said of what is left out. An outline, or a sung song, has none. */
export function innerVoice(
  { inner = [], melody }: Song,
  played: Song['melody'],
  { hands, playMode, plays }: Settings,
  bars: readonly Bar[],
): { readonly inner: readonly KeyNote[]; readonly findings: Finding[] } {
  if (inner.length === 0 || playMode !== 'arranged' || !plays.tune) return { inner: [], findings: [] };
  const { notes, without } = playedInner(inner, melody, played, hands);
  const findings = without.map(({ at, pitch }) => {
    const fact: FindingFact = { code: 'finding.wide-inner', pitch, place: placeOf(bars, at) };
    return finding('wide-stack', 'warn', at, fact, [advice('another-key')]);
  });
  return { inner: notes, findings };
}

/** Which of some notes lies farthest from the tune's. */
const farthest = (tune: Pitch, beside: readonly Pitch[]): number => {
  const away = beside.map((p) => Math.abs(midiOf(p) - midiOf(tune)));
  return away.indexOf(Math.max(...away));
};

/** The written left hand where it is played, as far as the hand and the keyboard allow, and what is to be said of the rest. */
export function writtenLeft(
  { left = [] }: Song,
  settings: Settings,
  bars: readonly Bar[],
): { readonly left: readonly KeyNote[]; readonly findings: Finding[] } {
  const wished = left.filter((n) => stretchAt(settings, n.at).written);
  if (wished.length === 0) return { left: [], findings: [] };
  const { notes, bent } = playedAsWritten(wished, settings.hands);
  const findings = bent.map(({ at, pitches, why }) => {
    const fact: FindingFact = { code: 'finding.left-bent', pitches, why, place: placeOf(bars, at) };
    return {
      ...finding('left-bent', 'warn', at, fact, why === 'keyboard' ? LONGER : []),
      concerns: why,
    };
  });
  return { left: notes, findings };
}
