import { Injectable } from '@angular/core';
import type { ArrangerApi } from './arranger.worker';
import type { HearingApi } from './hearing.worker';
import type { EngraverApi } from './engraver.worker';
import type { MixerApi } from './mixer.worker';
import type { NotesApi } from './notes.worker';
import type { ReaderApi } from './reader.worker';
import { WorkerClient, type Trouble } from './worker-client';

/** Milliseconds that one call to a worker may take: many times what the largest song needs. */
const DEADLINES = {
  arranger: 20_000,
  reader: 20_000,
  engraver: 90_000,
  mixer: 180_000,
  film: 1_800_000,
  hearing: 120_000,
  notes: 900_000,
} as const;

/** Milliseconds from opening a song until the engraver is made ahead, and from the start until a visitor is taken to look round first. */
const SETTLED_MS = 15_000;

/** The workers: arranging starts with the application, reading with the first file, engraving with the first sheet. */
@Injectable({ providedIn: 'root' })
export class Workers {
  readonly arranger = new WorkerClient<ArrangerApi>(
    () => new Worker(new URL('./arranger.worker', import.meta.url), { type: 'module' }),
    DEADLINES.arranger,
  );
  /** Reads by itself, so that a file that takes long or is hostile can be let go with its worker. */
  readonly reader = new WorkerClient<ReaderApi>(
    () => new Worker(new URL('./reader.worker', import.meta.url), { type: 'module' }),
    DEADLINES.reader,
  );
  /** Does the same for the shelf, and makes its cards: it never waits for a file that is brought in, nor is stopped with one. */
  readonly checker = new WorkerClient<ReaderApi>(
    () => new Worker(new URL('./reader.worker', import.meta.url), { type: 'module' }),
    DEADLINES.reader,
  );
  readonly engraver = new WorkerClient<EngraverApi>(
    () => new Worker(new URL('./engraver.worker', import.meta.url), { type: 'module' }),
    DEADLINES.engraver,
  );

  /** Makes sound files. */
  readonly mixer = new WorkerClient<MixerApi>(
    () => new Worker(new URL('./mixer.worker', import.meta.url), { type: 'module' }),
    DEADLINES.mixer,
  );

  /** Makes films, which take long. */
  readonly film = new WorkerClient<MixerApi>(
    () => new Worker(new URL('./mixer.worker', import.meta.url), { type: 'module' }),
    DEADLINES.film,
  );

  /** Hears what was sung, and recordings. */
  readonly hearing = new WorkerClient<HearingApi>(
    () => new Worker(new URL('./hearing.worker', import.meta.url), { type: 'module' }),
    DEADLINES.hearing,
  );

  /** Listens while one plays: it never waits for a recording that takes long. */
  readonly ear = new WorkerClient<HearingApi>(
    () => new Worker(new URL('./hearing.worker', import.meta.url), { type: 'module' }),
    DEADLINES.hearing,
  );

  /** Makes notes of recordings. */
  readonly notes = new WorkerClient<NotesApi>(
    () => new Worker(new URL('./notes.worker', import.meta.url), { type: 'module' }),
    DEADLINES.notes,
  );

  private prepared = false;
  private rest: () => void = () => undefined;

  /** Resolves once nothing that somebody may soon wait for is still to be made: no song was opened for a while, or its engraver is there. */
  readonly atRest = new Promise<void>((resolve) => (this.rest = resolve));

  constructor() {
    this.arranger.warm();
    setTimeout(() => {
      if (!this.prepared) this.rest();
    }, SETTLED_MS);
  }

  /** Makes the engraver while nothing else is to do, some time after a song was opened, so that its sheet does not wait for it. */
  prepareEngraver(): void {
    if (this.prepared) return;
    this.prepared = true;
    const idle: (run: () => void) => void = 'requestIdleCallback' in window ? requestIdleCallback : setTimeout;
    setTimeout(() => idle(() => void this.engraver.call('prepare').then(this.rest)), SETTLED_MS);
  }
}

/** Why something that was asked for is not there, as the end of a sentence. */
export const TROUBLE: Readonly<Record<Trouble, string>> = {
  failed: $localize`something in it could not be handled`,
  late: $localize`it took too long and was stopped`,
  stopped: $localize`it was stopped`,
  unavailable: $localize`part of this application could not be loaded; check the connection and reload the page`,
};
