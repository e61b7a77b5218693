import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, type OnDestroy } from '@angular/core';
import { isUnsure } from '@joined-hands/core/hearing';
import type { Draft } from '../../platform/audio/drafts';
import { HeardFile } from '../../platform/audio/heard-file';
import { Player } from '../../platform/audio/player';
import { Words } from '../../platform/words';

/** A draft of a recording beside what it was made of: both can be heard. */
@Component({
  selector: 'jh-draft-box',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p role="status" data-testid="draft">{{ says() }}</p>
    <p class="acts">
      <button type="button" class="btn small" (click)="hearRecording()">
        <ng-container i18n>{sounding(), select, true {Stop} other {Hear the recording}}</ng-container>
      </button>
      <button type="button" class="btn small" (click)="hearDraft()">
        <ng-container i18n>{player.state(), select, silent {Hear what was made of it} other {Stop}}</ng-container>
      </button>
    </p>
    <p i18n class="soft">A recording may be protected: publishing what you make from it may need permission under local law.</p>
  `,
  styles: `
    p {
      margin: 8px 0;
    }
    .acts {
      display: flex;
      flex-wrap: wrap;
      gap: 10px;
    }
    .soft {
      color: var(--soft);
    }
  `,
})
export class DraftBox implements OnDestroy {
  readonly draft = input.required<Draft>();
  protected readonly player = inject(Player);
  private readonly words = inject(Words);
  protected readonly sounding = signal(false);
  protected readonly says = computed(() => {
    const { name, tones } = this.draft();
    return this.words.say().fact({ code: 'screen.draft', name, notes: tones.length, unsure: tones.filter(isUnsure).length });
  });
  private file: HeardFile | null = null;

  constructor() {
    effect((onCleanup) => {
      const file = new HeardFile(this.draft().sound);
      this.file = file;
      onCleanup(() => file.close());
    });
  }

  ngOnDestroy(): void {
    this.player.stop();
    this.file?.close();
  }

  protected hearRecording(): void {
    this.player.stop();
    if (this.sounding()) return this.file?.stop();
    this.sounding.set(true);
    this.file?.play(() => this.sounding.set(false));
  }

  protected hearDraft(): void {
    this.file?.stop();
    if (this.player.state() !== 'silent') return this.player.stop();
    const { tones, tempo } = this.draft();
    const quarter = 60 / tempo;
    const sounds = tones.map(({ at, until, midi }) => ({
      time: at * quarter,
      duration: Math.max(0.1, (until - at) * quarter),
      midi,
      loudness: 0.6,
    }));
    const length = Math.max(...sounds.map((s) => s.time + s.duration));
    void this.player.play({ sounds, lead: 0, length, from: 0, placeAt: () => 0 });
  }
}
