import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { makeTune } from '../../testing/made-tunes.js';
import { soundOf, type Timbre, type Tone } from '../../testing/sounds.js';
import { arrange } from '../arrange/arrange.js';
import { readRecording } from '../formats/index.js';
import { midiOf, pitchClass } from '../pitch/pitch.js';
import { newDocument } from '../song/decisions.js';
import { TICKS_PER_QUARTER as Q } from '../time/ticks.js';
import { HEARING } from './figures.js';
import { hearLine, notesAlong, onBeat } from './line.js';
import { hearRecording } from './recording.js';

const RATE = 22_050;

/** The first bars of a made tune, in the range of a voice: its notes in quarters. */
function sung(number: number, octave = 0) {
  const { song } = makeTune(number);
  const notes = song.melody.filter((n) => n.at < 10 * Q).map((n) => ({ at: n.at / Q, until: (n.at + n.length) / Q, midi: midiOf(n.pitch) + 12 * octave })); // prettier-ignore
  return { notes, tempo: Math.min(110, song.tempo) };
}

/** F1 of notes heard on a grid of eighths, by place and key. */
function f1(number: number, timbre: Timbre, off: number, noise: number): { hit: number; heard: number; sung: number } {
  const { notes, tempo } = sung(number, timbre === 'whistle' ? 1 : 0);
  const quarter = 60 / tempo;
  // A breath is left before the next tone, as singers do.
  const tones = notes.map((n): Tone => ({ at: 0.5 + n.at * quarter, until: 0.5 + n.until * quarter - 0.05, midi: n.midi + off }));
  const { notes: heard } = hearLine(soundOf(tones, timbre, RATE, noise, number + 1), RATE);
  const place = (seconds: number) => Math.round((2 * (seconds - 0.5)) / quarter);
  const found = new Set(heard.map((n) => `${place(n.at)} ${n.midi}`));
  const wanted = new Set(notes.map((n) => `${Math.round(2 * n.at)} ${n.midi}`));
  return { hit: [...found].filter((n) => wanted.has(n)).length, heard: found.size, sung: wanted.size };
}

describe('one line that is sung, hummed, whistled or played', () => {
  it.each([
    ['la', 0.95],
    ['hum', 0.95],
    ['whistle', 0.95],
    ['piano', 0.95],
  ] as const)('%s: its notes are heard on the grid', (timbre, least) => {
    const sums = { hit: 0, heard: 0, sung: 0 };
    for (let i = 0; i < 4; i++) {
      const found = f1(i, timbre, ((i % 5) - 2) * 0.12, -40);
      for (const key of ['hit', 'heard', 'sung'] as const) sums[key] += found[key];
    }
    expect((2 * sums.hit) / (sums.heard + sums.sung)).toBeGreaterThanOrEqual(least);
  });

  it('is told how far above the keys it lies, and silence and noise are no notes', () => {
    const tones = [60, 62, 64, 65].map((midi, i): Tone => ({ at: i, until: i + 0.9, midi: midi + 0.2 }));
    expect(hearLine(soundOf(tones, 'la', RATE), RATE).cents).toBeCloseTo(20, -1);
    expect(hearLine(new Float32Array(RATE), RATE).notes).toEqual([]);
    expect(hearLine(soundOf([{ at: 0, until: 1, midi: 60, loudness: 0 }], 'la', RATE, -20), RATE).notes).toEqual([]);
  });

  it('is counted from its first beat, without what it is late by as a whole and what was heard of the count-in', () => {
    const late = [-3, 0, 1, 2, 2.5, 3, 4].map((at, i) => at + 0.18 + (i % 2 ? 0.03 : -0.03));
    const notes = late.map((at) => ({ at: 2 + at / 2, until: 2.2 + at / 2, midi: 60, sure: true }));
    const placed = onBeat({ notes, cents: 0 }, { origin: 2, quarters: 2, grid: 0.5, pickup: 2 }).map((n) => n.at);
    expect(placed).toHaveLength(6);
    placed.forEach((at, i) => expect(Math.abs(at - [0, 1, 2, 2.5, 3, 4][i])).toBeLessThan(0.05));
  });

  it('becomes a song with chords suggested, as one that is played in does', () => {
    const { notes, tempo } = sung(4);
    const quarter = 60 / tempo;
    const tones = notes.map((n): Tone => ({ at: n.at * quarter, until: n.until * quarter - 0.05, midi: n.midi }));
    const heard = hearLine(soundOf(tones, 'la', RATE), RATE).notes;
    const played = heard.map((n) => ({ at: n.at / quarter, until: n.until / quarter, midi: n.midi }));
    const read = readRecording({ title: 'Sung', tempo, meter: { beats: 4, unit: 4 }, notes: played });
    expect(read.ok && read.song.melody.length).toBe(notes.length);
    expect(read.ok && arrange(newDocument(read.song)).parts.flatMap((p) => p.chords).length).toBeGreaterThan(0);
  });
});

describe('a recording that is played along with', () => {
  /** Both hands of a made tune as they are arranged, at a tempo and a pitch of the recording's own. */
  function recorded(number: number, tempo: number, off: number): Float32Array {
    const { song } = makeTune(number, 'major');
    const { score } = arrange(newDocument({ ...song, meters: song.meters }));
    const quarter = 60 / tempo;
    const tones = score
      .filter((n) => n.at < 20 * Q)
      .map((n): Tone => ({ at: 0.4 + (n.at / Q) * quarter, until: 0.4 + ((n.at + n.length) / Q) * quarter, midi: midiOf(n.pitch) + off, loudness: 0.3 })); // prettier-ignore
    return soundOf(tones, 'piano', RATE, -50, number + 1);
  }

  it('has its tempo, its key and its pitch found; the tempo may be felt twice as slow or fast', () => {
    const found = { tempo: 0, key: 0, cents: 0 };
    const all = Array.from({ length: 4 }, (_, i) => i);
    for (const i of all) {
      const [tempo, off] = [66 + 19 * i, ((i % 5) - 2) * 0.1];
      const heard = hearRecording(recorded(i, tempo, off), RATE);
      const felt = [0.5, 1, 2, 1.5, 2 / 3, 3, 1 / 3].map((k) => k * tempo);
      if (felt.some((t) => Math.abs((heard.beat?.tempo ?? 0) / t - 1) < 0.01)) found.tempo++;
      const { key } = makeTune(i, 'major');
      if (heard.keys.slice(0, 2).some((k) => pitchClass(k.tonic) === pitchClass(key.tonic) && k.mode === key.mode)) found.key++;
      if (Math.abs(heard.cents - 100 * off) <= 6) found.cents++;
    }
    expect(found.tempo).toBeGreaterThanOrEqual(3);
    expect(found.key).toBeGreaterThanOrEqual(3);
    expect(found.cents).toBe(4);
  });

  it('that is silent or too short has no beat and no key', () => {
    expect(hearRecording(new Float32Array(6 * RATE), RATE)).toMatchObject({ beat: null, keys: [] });
  });
});

describe('the way of a line through its notes', () => {
  it('is the cheapest of all, as trying every key at every moment finds it', () => {
    const { lowest, highest, width, most, change, unheard, ignored } = HEARING.line;
    const states = [null, ...Array.from({ length: highest - lowest + 1 }, (_, i) => lowest + i)];
    const cost = (key: number | null, state: number | null) => {
      if (state === null) return key === null ? 0 : ignored;
      return key === null ? unheard : Math.min(most, 0.5 * ((key - state) / width) ** 2);
    };
    const priced = (keys: readonly (number | null)[], path: readonly (number | null)[]) =>
      path.reduce<number>((sum, s, i) => sum + cost(keys[i], s) + (i > 0 && s !== path[i - 1] ? change : 0), 0);
    const moment = fc.oneof({ weight: 4, arbitrary: fc.double({ min: 58, max: 66, noNaN: true }) }, { weight: 1, arbitrary: fc.constant(null) }); // prettier-ignore
    fc.assert(
      fc.property(fc.array(moment, { minLength: 1, maxLength: 60 }), (keys) => {
        let best = states.map((s) => cost(keys[0], s));
        for (const key of keys.slice(1)) {
          const before = best;
          best = states.map((s, i) => cost(key, s) + Math.min(...before.map((c, k) => c + (k === i ? 0 : change))));
        }
        const path = notesAlong(keys);
        expect(path).toHaveLength(keys.length);
        expect(priced(keys, path)).toBeCloseTo(Math.min(...best), 6);
      }),
      { numRuns: 60 },
    );
  });
});
