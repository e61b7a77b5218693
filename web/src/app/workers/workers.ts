import { Injectable } from '@angular/core';
import { wrap, type Remote } from 'comlink';
import type { ArrangerApi } from './arranger.worker';
import type { EngraverApi } from './engraver.worker';

/** The two workers: arranging starts with the application, engraving with the first sheet. */
@Injectable({ providedIn: 'root' })
export class Workers {
  readonly arranger: Remote<ArrangerApi> = wrap<ArrangerApi>(
    new Worker(new URL('./arranger.worker', import.meta.url), { type: 'module' }),
  );
  private engraving: Remote<EngraverApi> | null = null;

  get engraver(): Remote<EngraverApi> {
    return (this.engraving ??= wrap<EngraverApi>(new Worker(new URL('./engraver.worker', import.meta.url), { type: 'module' })));
  }
}
