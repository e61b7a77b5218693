import { expose } from 'comlink';
import { tonesIn, type HeardTone, type NoteModel } from '@joined-hands/core/hearing';
import { loadNoteModel } from './note-model';

/** Where the model and what runs it are served. */
const at = (path: string): string => new URL(`models/${path}`, location.href).href;

let model: Promise<NoteModel> | null = null;

/** Notes of recordings; the model is loaded with the first of them. */
const notes = {
  async tones(samples: Float32Array, told: (share: number) => void): Promise<HeardTone[]> {
    model ??= loadNoteModel(at('notes/model.json'), at('wasm/'));
    try {
      return tonesIn(await (await model).run(samples, told));
    } catch (error) {
      // What could not be loaded is asked for again the next time.
      model = null;
      throw error;
    }
  },
};

export type NotesApi = typeof notes;

expose(notes);
