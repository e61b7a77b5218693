import fc from 'fast-check';
import { arrange } from '../src/arrange/arrange.js';
import type { Arrangement } from '../src/arrange/arrangement.js';
import {
  BASS_WISHES,
  CHORD_TIMINGS,
  TOUCHES,
  DOMINANTS,
  UNDER_TUNE,
  ENDINGS,
  FILL_KINDS,
  HAND_PROFILES,
  LAYERS,
  LEVELS,
  LOUDNESSES,
  SCHOOLS,
  WALKS,
  PLAY_MODES,
  type Document,
} from '../src/song/decisions.js';
import { applyEdit, type Edit } from '../src/song/edit.js';
import { keysOf } from '../src/harmony/key.js';
import { metersFor } from '../src/song/facts.js';
import { TICKS_PER_QUARTER as Q } from '../src/time/ticks.js';
import { SYMBOLS } from './songs.js';

/** Any change that the page can make to a song as it is arranged, possible or not. */
export function edits(doc: Document, { parts }: Pick<Arrangement, 'parts'>): fc.Arbitrary<Edit> {
  const ranges = parts.map(({ start, end }) => ({ start, end }));
  const range = fc.constantFrom(...ranges);
  const rangeOrSong = fc.option(range, { nil: null });
  const at = fc.constantFrom(...parts.flatMap((p) => [...p.chords.map((c) => c.writtenAt), ...p.melody.map((n) => n.at)]));
  const pair = fc.integer({ min: 1, max: Math.max(1, ranges.length - 1) }).map((i) => {
    const [a, b] = [ranges[i - 1], ranges[i] ?? ranges[i - 1]];
    return [a, b] as const;
  });
  const name = fc.constantFrom('', 'Verse', ' Bridge ');
  const of = <C extends Edit['code']>(
    code: C,
    fields: { [K in Exclude<keyof Extract<Edit, { code: C }>, 'code'>]?: fc.Arbitrary<unknown> },
  ) => fc.record({ code: fc.constant(code), ...fields }) as unknown as fc.Arbitrary<Edit>;
  const setting = (key: string, value: fc.Arbitrary<unknown>) =>
    of('edit.setting', { range: rangeOrSong, setting: fc.constant(key), value } as never);
  return fc.oneof(
    setting('octave', fc.integer({ min: -2, max: 2 })),
    setting('loudness', fc.constantFrom(...LOUDNESSES)),
    setting('texture', fc.constantFrom('block', 'bass-chord', 'free')),
    setting('dominants', fc.constantFrom(...DOMINANTS)),
    setting('under', fc.constantFrom(...UNDER_TUNE)),
    setting('leftOctave', fc.integer({ min: -1, max: 1 })),
    setting('level', fc.constantFrom(...LEVELS)),
    setting('walk', fc.constantFrom(...WALKS)),
    setting('ending', fc.constantFrom(...ENDINGS)),
    of('edit.school', { range: rangeOrSong, school: fc.constantFrom(null, ...SCHOOLS) }),
    of('edit.bass', { range: rangeOrSong, bass: fc.constantFrom(...BASS_WISHES) }),
    of('edit.suggest', { range: rangeOrSong, suggest: fc.constantFrom(null, { vocabulary: 'triads', rhythm: 'bar' }) }),
    of('edit.stay', { range, stay: fc.constantFrom(null, { notes: 'tonic', figure: 'counts' }) }),
    of('edit.chord', { at, symbol: fc.constantFrom(...SYMBOLS) }),
    of('edit.leave-out', { at, symbol: fc.constant('C') }),
    of('edit.restore-chord', { at }),
    of('edit.voicing', { at, pitches: fc.constantFrom(['C3', 'E3', 'G3'], ['F2']) }),
    of('edit.free-voicing', { at }),
    of('edit.fingers', { at, hand: fc.constantFrom('left', 'right'), fingers: fc.constantFrom(null, [3], [5, 3, 1]) }),
    of('edit.respell', { at, name: fc.constantFrom('C#', 'Db', 'Gb', 'Cb', 'E') }),
    of('edit.stop', { at, stop: fc.constantFrom('fermata', 'breath'), there: fc.boolean() }),
    setting('touch', fc.constantFrom(...TOUCHES)),
    setting('timing', fc.constantFrom(...CHORD_TIMINGS)),
    of('edit.keys', {
      hand: fc.constantFrom('left', 'inner'),
      at,
      length: fc.constantFrom(Q, 4 * Q),
      notes: at.map((place) => [
        { at: place, length: 2 * Q, pitch: 'C3' },
        { at: place, length: Q, pitch: 'G3' },
      ]),
    }),
    of('edit.remind', { at, text: fc.constantFrom('jump early', ' ', 'wrist low: \n"soft" & <long>') }),
    of('edit.chord-school', { at, school: fc.constantFrom(null, ...SCHOOLS) }),
    of('edit.fill', { at, kind: fc.constantFrom(null, ...FILL_KINDS) }),
    of('edit.move-cut', { parts: pair, to: at }),
    of('edit.split', { part: range, at }),
    of('edit.merge', { parts: pair }),
    of('edit.part-size', { size: fc.constantFrom('smaller', 'usual', 'larger') }),
    of('edit.clear-parts', {}),
    of('edit.name-part', { at: range.map((r) => r.start), name }),
    of('edit.name-section', { at: range.map((r) => r.start), name }),
    of('edit.balance', { percent: fc.integer({ min: 0, max: 80 }) }),
    of('edit.close', { change: fc.constantFrom({ slower: 20 }, { touch: 'rolled' }) }),
    of('edit.mute', { layer: fc.constantFrom(...LAYERS), muted: fc.boolean() }),
    of('edit.up-to-layer', { layer: fc.constantFrom(...LAYERS) }),
    of('edit.play-mode', { mode: fc.constantFrom(...PLAY_MODES) }),
    of('edit.hands', { change: fc.constantFrom(...HAND_PROFILES).map((profile) => ({ profile })) }),
    of('edit.key', { key: fc.constantFrom({ tonic: 'Eb', mode: doc.song.key.mode }, { tonic: 'A', mode: doc.song.key.mode }) }),
    of('edit.facts', {
      change: fc.oneof(
        fc.record({ composer: fc.constantFrom(null, 'A ferry pianist'), tempo: fc.integer({ min: 20, max: 400 }) }),
        fc.record({ title: name, key: fc.constantFrom(...keysOf('major'), ...keysOf('minor')) }),
        fc.record({ meter: fc.constantFrom(...metersFor(doc.song), { beats: 7, unit: 8 }) }),
      ),
    }),
    of('edit.strip-chords', {}),
    of('edit.tune', { notes: at.map((place) => [{ at: place, length: Q, pitch: 'E4', lyric: null }]) }),
    of('edit.keep-version', { name: fc.constantFrom('Evening', ''), kept: fc.constant('2026-01-02T03:04:05.000Z') }),
    of('edit.take-version', { name: fc.constantFrom('Evening', 'none') }),
    of('edit.drop-version', { name: fc.constantFrom('Evening', 'none') }),
  );
}

/** A song with the first fill that is offered in every room. */
export function withFills(document: Document): Document {
  const rooms = arrange(document).parts.flatMap((p) => p.rooms);
  return rooms.reduce(
    (doc, { at, offers }) => applyEdit(doc, { code: 'edit.fill', at, kind: offers[0]?.kind ?? null }),
    document,
  );
}
