import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { PracticeStore } from '../../platform/state/practice.store';
import { Rehearsal } from './rehearsal';
import { What } from '../../ui/words/what';
import { Words } from '../../platform/words';

/** What came of a pass: words first, then figures; or the question where nothing was heard. */
@Component({
  selector: 'jh-outcome',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, What],
  templateUrl: './outcome.html',
  styleUrl: './outcome.less',
  host: { 'aria-live': 'polite' },
})
export class Outcome {
  protected readonly rehearsal = inject(Rehearsal);
  protected readonly words = inject(Words);
  protected readonly practice = inject(PracticeStore);
  protected readonly figures = computed(() => {
    const result = this.rehearsal.result();
    const f = result?.figures;
    if (!f) return [];
    const byEar = result.heardBy === 'ear';
    const counts = [
      { text: byEar ? $localize`as another key` : $localize`wrong`, count: f.wrong, sign: 'wrong' },
      { text: byEar ? $localize`not heard` : $localize`missing`, count: f.missed, sign: 'missed' },
      { text: $localize`too many`, count: f.extra, sign: '' },
      { text: $localize`early`, count: f.early, sign: 'early' },
      { text: $localize`late`, count: f.late, sign: 'late' },
    ];
    return counts.filter((c) => c.count > 0);
  });
  /** The share of right notes as a sentence: an ear tells that it heard them. */
  protected readonly share = computed(() => {
    const result = this.rehearsal.result();
    const f = result?.figures;
    if (!f) return null;
    const words = result.heardBy === 'ear' ? $localize`heard` : $localize`right`;
    return { right: f.right, of: f.notes, words };
  });
  protected readonly learned = computed(() => this.rehearsal.current()?.ladder.learned ?? false);

  /** A word of one's own about the pass. */
  protected remark(note: string): void {
    const pass = this.rehearsal.result()?.pass;
    if (pass) void this.practice.keep([{ ...pass, note: note.slice(0, 500) }]);
  }
}
