import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { changedTune, type NoteChange } from '@joined-hands/core/song';
import { TICKS_PER_QUARTER as Q } from '@joined-hands/core/time';
import { DeskStore } from '../../platform/state/desk.store';
import { Fold } from '../../ui/fold';

/** How far a note is moved in time by one press. */
const STEP = Q / 2;

const CHANGES: readonly { readonly text: string; readonly change: NoteChange }[] = [
  { text: $localize`Half step up`, change: { kind: 'pitch', by: 1 } },
  { text: $localize`Half step down`, change: { kind: 'pitch', by: -1 } },
  { text: $localize`Octave up`, change: { kind: 'pitch', by: 12 } },
  { text: $localize`Octave down`, change: { kind: 'pitch', by: -12 } },
  { text: $localize`Begin earlier`, change: { kind: 'begin', by: -STEP } },
  { text: $localize`Begin later`, change: { kind: 'begin', by: STEP } },
  { text: $localize`Split in two`, change: { kind: 'split' } },
  { text: $localize`Join with the next`, change: { kind: 'join' } },
  { text: $localize`Take it away`, change: { kind: 'remove' } },
];

/** Puts a note of the melody right: what a file, a recording or a voice left wrong. */
@Component({
  selector: 'jh-change-note',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Fold],
  template: `
    @if (offers().length > 0) {
      <jh-fold i18n-title title="Correct this note" data-testid="correct-note">
        <div class="acts">
          @for (offer of offers(); track offer.text) {
            <button type="button" class="btn small" (click)="take(offer.change)">{{ offer.text }}</button>
          }
        </div>
      </jh-fold>
    }
  `,
  styles: `
    .acts {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
      margin: 6px 0;
    }
  `,
})
export class ChangeNote {
  readonly at = input.required<number>();
  private readonly desk = inject(DeskStore);
  /** What can be done with it; nothing where the song has no note of its own here. */
  protected readonly offers = computed(() => {
    const song = this.desk.document()?.song;
    return song ? CHANGES.filter(({ change }) => changedTune(song, this.at(), change) !== null) : [];
  });

  protected async take(change: NoteChange): Promise<void> {
    const at = this.at();
    await this.desk.edit({ code: 'edit.note', at, change });
    // The note stays in hand where it goes.
    if (change.kind === 'begin') this.desk.select({ kind: 'note', at: at + change.by });
  }
}
