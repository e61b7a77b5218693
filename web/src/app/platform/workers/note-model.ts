import * as tf from '@tensorflow/tfjs-core';
import { loadGraphModel, type GraphModel } from '@tensorflow/tfjs-converter';
import { setWasmPaths } from '@tensorflow/tfjs-backend-wasm';
import type { NoteModel } from '@joined-hands/core/hearing';

/** Samples a second, of a window, and from one frame to the next; frames that two windows share, and that a window has. */
const RATE = 22_050;
const HOP = 256;
const WINDOW = 2 * RATE - HOP;
const SHARED = 30;
const FRAMES = 172;
const STEP = WINDOW - SHARED * HOP;

/** Keys of a frame, from the lowest of the piano. */
const KEYS = 88;
const LOWEST = 21;

/** Seconds by which the frames of each window come later than the model counts them. */
const WINDOW_OFFSET = (HOP / RATE) * (FRAMES - WINDOW / HOP) + 0.0018;

/** The outputs of the model that tell when keys sound and begin. */
const OUTPUTS = ['Identity_1', 'Identity_2'];

/**
 * The model that ships with the package named in NOTICE (Bittner and others, A lightweight instrument-agnostic model for polyphonic note
 * transcription, 2022), from where it is served or from its parts, run in WebAssembly from a folder.
 */
export async function loadNoteModel(source: string | tf.io.IOHandler, wasm: string): Promise<NoteModel> {
  setWasmPaths(wasm);
  // More than one thread needs a page that is shut off from others.
  tf.env().set('WASM_HAS_MULTITHREAD_SUPPORT', false);
  await tf.setBackend('wasm');
  const model = await loadGraphModel(source);
  return { rate: RATE, run: (samples, told) => run(model, samples, told) };
}

async function run(model: GraphModel, samples: Float32Array, told: (share: number) => void) {
  // Each window gives its middle; before the first there is silence.
  const padded = new Float32Array(samples.length + (SHARED / 2) * HOP + WINDOW);
  padded.set(samples, (SHARED / 2) * HOP);
  const windows = Math.max(1, Math.ceil((samples.length + (SHARED / 2) * HOP) / STEP));
  const each = FRAMES - SHARED;
  const sounds = new Float32Array(windows * each * KEYS);
  const begins = new Float32Array(windows * each * KEYS);
  for (let w = 0; w < windows; w++) {
    told(w / windows);
    const input = tf.tensor3d(padded.subarray(w * STEP, w * STEP + WINDOW), [1, WINDOW, 1]);
    const outputs = model.execute(input, OUTPUTS) as tf.Tensor[];
    for (const [k, all] of [sounds, begins].entries()) {
      const frames = (await outputs[k].data()) as Float32Array;
      all.set(frames.subarray((SHARED / 2) * KEYS, (SHARED / 2 + each) * KEYS), w * each * KEYS);
    }
    tf.dispose([input, ...outputs]);
  }
  told(1);
  const timeOf = (frame: number) => (frame * HOP) / RATE - WINDOW_OFFSET * Math.floor(frame / FRAMES);
  return { sounds, begins, keys: KEYS, lowest: LOWEST, timeOf };
}
