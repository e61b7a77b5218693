import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { midiOfTones, readMidi } from '@joined-hands/core/formats';
import { inQuarters, isUnsure, tonesIn, type HeardTone, type NoteModel } from '@joined-hands/core/hearing';
import { midiOf } from '@joined-hands/core/pitch';
import { TICKS_PER_QUARTER as Q } from '@joined-hands/core/time';
import { beforeAll, describe, expect, it } from 'vitest';
import { heardInRoom, LEAD, QUIET_ROOM, type Struck } from '../../../../../core/testing/pianos';
import { LEARNER, takesOf } from '../../../../../core/testing/takes';
import { loadNoteModel } from './note-model';

const MODEL = join(import.meta.dirname, '../../../../public/models/notes');
const WASM = join(import.meta.dirname, '../../../../../node_modules/@tensorflow/tfjs-backend-wasm/dist/');
/** The model as it is served, from its two files. */
interface Served {
  readonly modelTopology: object;
  readonly weightsManifest: readonly { readonly weights: never[] }[];
}

let model: NoteModel;
beforeAll(async () => {
  const { modelTopology, weightsManifest } = JSON.parse(readFileSync(join(MODEL, 'model.json'), 'utf8')) as Served;
  const bytes = readFileSync(join(MODEL, 'group1-shard1of1.bin'));
  const weightData = new Uint8Array(bytes).buffer;
  model = await loadNoteModel(
    { load: () => Promise.resolve({ modelTopology, weightSpecs: weightsManifest[0].weights, weightData }) },
    WASM,
  );
});

/** What is heard of a take; half of its samples are enough for the model. */
async function heardOf(sound: Float32Array): Promise<HeardTone[]> {
  const samples = Float32Array.from({ length: sound.length >> 1 }, (_, k) => 0.5 * (sound[2 * k] + sound[2 * k + 1]));
  const told: number[] = [];
  const tones = tonesIn(await model.run(samples, (share) => told.push(share)));
  expect(told.at(-1)).toBe(1);
  expect(told).toEqual(told.toSorted((a, b) => a - b));
  return tones.map((t) => ({ ...t, at: t.at - LEAD, until: t.until - LEAD }));
}

/** How many keys were heard within a twentieth of a second. */
function found(struck: readonly Pick<Struck, 'midi' | 'time'>[], tones: readonly HeardTone[]): number {
  const open = new Set(tones);
  return struck.filter(({ midi, time }) => {
    const tone = [...open].find((t) => t.midi === midi && Math.abs(t.at - time) < 0.05);
    return tone !== undefined && open.delete(tone);
  }).length;
}

describe('a recording of a piano that no weight was set by', () => {
  it('has its notes heard, and its tune as the top line of both hands', async () => {
    const takes = takesOf([301, 302], { ...LEARNER, wrong: 0, missed: 0, extra: 0 }).filter((t) => t.hands === 'both');
    const sounds = heardInRoom(
      takes.map((t) => t.struck),
      { ...QUIET_ROOM, piano: 'apart' },
    );
    const sums = { struck: 0, heard: 0, right: 0, tune: 0, line: 0, inLine: 0, unsure: 0 };
    for (const [i, { struck, notes, tempo }] of takes.entries()) {
      const tones = await heardOf(sounds[i]);
      sums.struck += struck.length;
      sums.heard += tones.length;
      sums.right += found(struck, tones);
      sums.unsure += tones.filter(isUnsure).length;
      // The draft is read like a file that was played.
      const beat = struck[0].time;
      const draft = readMidi(midiOfTones('Draft', tempo, inQuarters(tones, tempo, beat)), { stacks: 'top' });
      if (!draft.ok) throw new Error('The draft cannot be read.');
      const line = draft.song.melody.map((n) => ({ midi: midiOf(n.pitch), at: n.at / Q }));
      const tune = notes.filter((n) => n.hand === 'right');
      sums.tune += tune.length;
      sums.line += line.length;
      sums.inLine += tune.filter((n) =>
        line.some((l) => l.midi === n.midi && Math.abs(l.at - (n.at - notes[0].at)) < 0.75),
      ).length;
    }
    const f1 = (hits: number, asked: number, told: number) => (2 * hits) / (asked + told);
    console.log(
      JSON.stringify({ ...sums, notes: f1(sums.right, sums.struck, sums.heard), top: f1(sums.inLine, sums.tune, sums.line) }),
    );
    expect(f1(sums.right, sums.struck, sums.heard)).toBeGreaterThanOrEqual(0.88);
    expect(f1(sums.inLine, sums.tune, sums.line)).toBeGreaterThanOrEqual(0.9);
  });
});
