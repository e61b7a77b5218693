import { Injectable } from '@angular/core';
import { wrap, type Remote } from 'comlink';
import type { ArrangerApi } from './arranger.worker';
import type { EngraverApi } from './engraver.worker';
import type { ReaderApi } from './reader.worker';

/** The workers: arranging starts with the application, reading with the first file, engraving with the first sheet. */
@Injectable({ providedIn: 'root' })
export class Workers {
  readonly arranger: Remote<ArrangerApi> = wrap<ArrangerApi>(
    new Worker(new URL('./arranger.worker', import.meta.url), { type: 'module' }),
  );
  private engraving: Remote<EngraverApi> | null = null;

  private reading: { readonly worker: Worker; readonly api: Remote<ReaderApi> } | null = null;

  get reader(): Remote<ReaderApi> {
    if (!this.reading) {
      const worker = new Worker(new URL('./reader.worker', import.meta.url), { type: 'module' });
      this.reading = { worker, api: wrap<ReaderApi>(worker) };
    }
    return this.reading.api;
  }

  /** Lets go of what is being read; the next file starts afresh. */
  stopReading(): void {
    this.reading?.worker.terminate();
    this.reading = null;
  }

  get engraver(): Remote<EngraverApi> {
    return (this.engraving ??= wrap<EngraverApi>(new Worker(new URL('./engraver.worker', import.meta.url), { type: 'module' })));
  }
}
