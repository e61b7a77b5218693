import { Injectable, computed, inject } from '@angular/core';
import { wordsWith, type Fact } from '@joined-hands/core/words';
import { SettingsStore } from './state/settings.store';

/** Words for what the core answers, with notes named as the pianist chose. */
@Injectable({ providedIn: 'root' })
export class Words {
  private readonly settings = inject(SettingsStore);
  readonly say = computed(() => wordsWith(this.settings.noteNames(), this.settings.exactNames()));

  /** A fact in its words, or null where there is none. */
  fact(fact: Fact | null): string | null {
    return fact && this.say().fact(fact);
  }
}
