import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { LAYERS, type Layer, type PlayMode } from '@joined-hands/core/song';
import { LAYER_LABELS, PLAY_MODE_LABELS } from '@joined-hands/core/words';
import { DeskStore } from '../../platform/state/desk.store';
import { Check } from '../../ui/check';
import { Choice } from '../../ui/choice';
import { Pop } from '../../ui/pop';

const PLAY_MODE_SAYS: Readonly<Record<PlayMode, string>> = {
  arranged: $localize`Each layer builds on the one before. Mute a layer to hear what is under it.`,
  outline: $localize`Only the highest and lowest notes, to learn first: your hands are already in the right places.`,
  'sing-along': $localize`You sing the melody. The right hand plays the chords, the left one bass note or its octave.`,
};

/** The layers of the arrangement in the order in which they are learned; each can be silent, and each is a version to practise. */
@Component({
  selector: 'jh-layers-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Check, Choice, Pop],
  template: `<jh-pop i18n-label label="Layers" [value]="value()"
    ><ng-template>
      <div class="layers">
        <jh-choice
          class="small"
          i18n-label
          label="How it is played"
          [entries]="modes"
          [value]="mode()"
          (chosen)="choosePlayMode($event)"
        />
        <p>{{ says() }}</p>
        @if (mode() === 'arranged') {
          <ol>
            @for (layer of layers; track layer.id) {
              <li [class.silent]="layer.muted()">
                <jh-check [checked]="!layer.muted()" (checkedChange)="mute(layer.id, !$event)">{{ layer.words }}</jh-check>
                <button
                  i18n
                  type="button"
                  class="link"
                  (click)="upTo(layer.id)"
                  i18n-ariaLabel
                  ariaLabel="Only up to {{ layer.words }}"
                >
                  only up to here
                </button>
              </li>
            }
          </ol>
        }
      </div>
    </ng-template></jh-pop
  >`,
  styleUrl: './layers-panel.less',
})
export class LayersPanel {
  private readonly desk = inject(DeskStore);
  protected readonly modes = (Object.keys(PLAY_MODE_LABELS) as PlayMode[]).map((id) => ({ id, text: PLAY_MODE_LABELS[id] }));
  protected readonly layers = LAYERS.map((id) => ({
    id,
    words: LAYER_LABELS[id],
    muted: computed(() => this.desk.document()?.choices.muted.includes(id) ?? false),
  }));
  protected readonly mode = computed((): PlayMode => this.desk.document()?.choices.playMode ?? 'arranged');
  protected readonly says = computed(() => PLAY_MODE_SAYS[this.mode()]);
  protected readonly value = computed(() => {
    const silent = this.layers.filter((l) => l.muted());
    if (this.mode() !== 'arranged') return PLAY_MODE_LABELS[this.mode()];
    if (silent.length === 0) return 'all';
    const heard = this.layers.findLast((l) => !l.muted());
    const rest = this.layers.slice(this.layers.findIndex((l) => l === heard) + 1);
    return heard && silent.every((l) => rest.includes(l)) ? $localize`up to ${heard.words}` : $localize`${silent.length} silent`;
  });

  protected choosePlayMode(mode: PlayMode): void {
    void this.desk.edit({ code: 'edit.play-mode', mode });
  }

  protected mute(layer: Layer, muted: boolean): void {
    void this.desk.edit({ code: 'edit.mute', layer, muted });
  }

  protected upTo(layer: Layer): void {
    void this.desk.edit({ code: 'edit.up-to-layer', layer });
  }
}
