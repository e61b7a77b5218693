import { DOMINANT_LABELS, UNDER_TUNE_LABELS } from '@joined-hands/core/words';
import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { DOMINANTS, settingAt, UNDER_TUNE, type Choices, type TickRange } from '@joined-hands/core/song';
import { DeskStore } from '../../platform/state/desk.store';
import { Choice } from '../../ui/choice';

const OCTAVES = [
  { id: '-1', text: $localize`down` },
  { id: '0', text: $localize`usual` },
  { id: '1', text: $localize`up` },
] as const;

/** How full the left hand's sevenths are, how high it lies, and where a chord under the melody is struck. */
@Component({
  selector: 'jh-left-wishes',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choice],
  template: `
    <div class="row">
      <span i18n>Sevenths</span>
      <jh-choice
        class="small"
        i18n-label
        label="Notes of dominant sevenths"
        [entries]="dominants"
        [value]="wish('dominants')"
        (chosen)="setDominants($event)"
      />
    </div>
    <div class="row">
      <span i18n>Octave</span>
      <jh-choice
        class="small"
        i18n-label
        label="Octave of the left hand"
        [entries]="octaves"
        [value]="octave()"
        (chosen)="setOctave($event)"
      />
    </div>
    @if (under()) {
      <div class="row">
        <span i18n>Under the melody</span>
        <jh-choice
          class="small"
          i18n-label
          label="Chords under the melody"
          [entries]="unders"
          [value]="wish('under')"
          (chosen)="setUnder($event)"
        />
      </div>
    }
  `,
  styles: `
    :host {
      display: contents;
    }
    .row {
      display: flex;
      align-items: center;
      gap: 8px;
    }
    span {
      color: var(--soft);
    }
  `,
})
export class LeftWishes {
  /** Where the wishes hold; null for the whole song. */
  readonly range = input.required<TickRange | null>();
  /** True where the right hand holds chords under the melody. */
  readonly under = input(false);
  private readonly desk = inject(DeskStore);
  protected readonly dominants = DOMINANTS.map((id) => ({ id, text: DOMINANT_LABELS[id] }));
  protected readonly unders = UNDER_TUNE.map((id) => ({ id, text: UNDER_TUNE_LABELS[id] }));
  protected readonly octaves = OCTAVES;
  protected readonly octave = computed(() => `${this.wish('leftOctave') ?? 0}` as (typeof OCTAVES)[number]['id']);

  protected wish<K extends 'dominants' | 'leftOctave' | 'under'>(name: K): Choices[K] | null {
    const doc = this.desk.document();
    return doc && settingAt(doc, this.range()?.start ?? this.desk.currentPart()?.start ?? 0, name);
  }

  protected setDominants(value: Choices['dominants']): void {
    void this.desk.edit({ code: 'edit.setting', range: this.range(), setting: 'dominants', value });
  }

  protected setUnder(value: Choices['under']): void {
    void this.desk.edit({ code: 'edit.setting', range: this.range(), setting: 'under', value });
  }

  protected setOctave(octave: string): void {
    void this.desk.edit({ code: 'edit.setting', range: this.range(), setting: 'leftOctave', value: Number(octave) });
  }
}
