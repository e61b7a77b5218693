import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { changedTune, type NoteChange, type Song } from '@joined-hands/core/song';
import { TICKS_PER_QUARTER as Q } from '@joined-hands/core/time';
import { Fold } from './fold';

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
      <jh-fold i18n-title title="Correct this note" [open]="open()" data-testid="correct-note">
        <div class="acts">
          @for (offer of offers(); track offer.text) {
            <button type="button" class="btn small" (click)="take(offer.change)">{{ offer.text }}</button>
          }
          <ng-content />
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
  readonly song = input.required<Song>();
  readonly at = input.required<number>();
  readonly open = input(false);
  /** What is to be done with the note, and where it begins then. */
  readonly changed = output<{ change: NoteChange; at: number }>();
  /** What can be done with it; nothing where the song has no note of its own here. */
  protected readonly offers = computed(() =>
    CHANGES.filter(({ change }) => changedTune(this.song(), this.at(), change) !== null),
  );

  protected take(change: NoteChange): void {
    this.changed.emit({ change, at: this.at() + (change.kind === 'begin' ? change.by : 0) });
  }
}
