import { arrange } from '../src/arrange/arrange.js';
import type { Arrangement, ScoreNote } from '../src/arrange/arrangement.js';
import { isChordNote } from '../src/fills/dress.js';
import { parseChord } from '../src/harmony/symbol.js';
import { midiOf } from '../src/pitch/pitch.js';
import { KEYBOARDS, spanOf, type Document } from '../src/song/decisions.js';

/** What must hold of any arrangement, whatever its layers; answers what does not, in words. */
export function faultsOf(doc: Document, arrangement: Arrangement = arrange(doc)): string[] {
  const { score, parts, song, findings, bars } = arrangement;
  const found: string[] = [];
  const must = (holds: boolean, fault: string) => holds || found.push(`${doc.hands.profile}: ${fault}`);
  const told = new Set(findings.filter((f) => f.rule.startsWith('collision')).map((f) => f.chordAt));
  const chords = parts.flatMap((p) => p.chords);
  const { low, high } = KEYBOARDS[doc.hands.keys];
  const tune = score.filter((n) => n.role === 'melody');
  if (tune.length > 0) must(print(tune) === print(song.melody) && print(tune) === plainTune(doc), 'the tune changed');
  for (const hand of ['left', 'right'] as const) {
    const notes = score.filter((n) => n.hand === hand);
    for (const { at } of notes) {
      const keys = soundingAt(notes, at).map((n) => midiOf(n.pitch));
      const { limit } = spanOf(doc.hands, hand);
      must(Math.max(...keys) - Math.min(...keys) <= limit, `the ${hand} hand spans ${keys.join()} at ${at}`);
      must(new Set(keys).size === keys.length && keys.length <= 5, `the ${hand} hand has keys ${keys.join()} at ${at}`);
    }
    for (const n of notes) {
      must(midiOf(n.pitch) >= low && midiOf(n.pitch) <= high, `${n.pitch} is off the keyboard`);
      must(n.length > 0 && n.at + n.length <= song.length, `${n.pitch} at ${n.at} lies outside the song`);
      must(n.finger !== null && n.finger >= 1 && n.finger <= 5, `${n.pitch} at ${n.at} has no finger`);
      must(n.loudness > 0 && n.loudness <= 1, `${n.pitch} is as loud as ${n.loudness}`);
    }
  }
  const right = score.filter((n) => n.hand === 'right');
  for (const n of score.filter((x) => x.hand === 'left')) {
    const chord = chords.findLast((c) => c.at <= n.at);
    const parsed = chord && parseChord(chord.symbol);
    if (!chord || parsed?.kind !== 'chord') continue;
    must(n.role === 'fill' || isChordNote(parsed, n.pitch), `${n.pitch} is not in ${chord.symbol}`);
    must(n.at + n.length <= chord.at + chord.length, `${n.pitch} outlasts ${chord.symbol}`);
    const meets = right.some((r) => r.at < n.at + n.length && n.at < r.at + r.length && midiOf(r.pitch) - midiOf(n.pitch) < 3);
    must(!meets || told.has(chord.at), `${n.pitch} meets the right hand at ${n.at} and it is not said`);
  }
  must(bars[0].start === 0 && bars.at(-1)?.end === song.length, 'the bars do not fill the song');
  return found;
}

/** The keys that a hand has down at a place. */
const soundingAt = (notes: readonly ScoreNote[], at: number): ScoreNote[] =>
  notes.filter((n) => n.at <= at && at < n.at + n.length);

const print = (notes: readonly { at: number; length: number; pitch: string }[]) =>
  notes.map((n) => `${n.at} ${n.length} ${n.pitch}`).join();

/** Tunes under block chords, by song and choices: tests ask for the same one with every texture and every hand. */
const tunes = new WeakMap<Document['song'], Map<string, string>>();

/** The tune as it is printed without any layer. */
function plainTune(doc: Document): string {
  const ofSong = tunes.get(doc.song) ?? new Map<string, string>();
  tunes.set(doc.song, ofSong);
  const plain = { ...doc, choices: plainly(doc) };
  const key = JSON.stringify([plain.choices, doc.hands]);
  const tune = ofSong.get(key) ?? print(arrange(plain).song.melody);
  ofSong.set(key, tune);
  return tune;
}

/** The choices without any layer over the block chords. */
const plainly = ({ choices }: Document): Document['choices'] => ({
  ...choices,
  texture: 'block',
  walk: 'none',
  ending: 'plain',
  fills: [],
  muted: [],
  playMode: 'arranged',
  harmony: { density: 0, size: 'one' },
  passages: choices.passages.map(({ texture: _t, walk: _w, ending: _e, harmony: _h, ...p }) => p),
});
