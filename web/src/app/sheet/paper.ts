import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { chordShapes, keyName, lessonOf, letterChart, meterName, worksheet, type Arrangement } from '@joined-hands/core';
import { LittleKeyboard, octavesOf } from '../widgets/little-keyboard';
import { Signs } from '../widgets/signs';

/** Kinds of sheet that are words and letters; the staff is engraved. */
export type PaperKind = 'letters' | 'lesson' | 'worksheet' | 'chords';

/** A sheet to hand out: the letter chart, the lesson in steps, a worksheet with blanks, or all shapes of the left hand. */
@Component({
  selector: 'jh-paper',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [LittleKeyboard, Signs],
  templateUrl: './paper.html',
  styleUrl: './paper.less',
})
export class Paper {
  readonly arrangement = input.required<Arrangement>();
  readonly kind = input.required<PaperKind>();
  protected readonly chart = computed(() => letterChart(this.arrangement()));
  protected readonly lesson = computed(() => lessonOf(this.arrangement()));
  protected readonly blanks = computed(() => worksheet(this.arrangement()));
  protected readonly shapes = computed(() => chordShapes(this.arrangement()));
  /** Octaves that hold every key of every shape, so that all are drawn alike. */
  protected readonly range = computed(() => octavesOf(this.shapes().flatMap((s) => s.pitches)));
  protected readonly worded = computed(() => this.arrangement().song.melody.some((n) => n.lyric));
  protected readonly about = computed(() => {
    const { song } = this.arrangement();
    return `${keyName(song.key)} · ${meterName(song.meters[0])} · ♩ = ${song.tempo}`;
  });
  protected readonly subtitle = computed(
    () =>
      ({ letters: '', lesson: 'Part by part', worksheet: 'Copy it by hand', chords: 'All shapes of the left hand' })[this.kind()],
  );

  protected blank(n: number): unknown[] {
    return new Array(n).fill(0) as unknown[];
  }
}
