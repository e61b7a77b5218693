import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import type { Arrangement, PartChord } from '@joined-hands/core/arrange';
import { gripsOf, shapeOf, shapesOf } from '@joined-hands/core/left-hand';
import { changeInShort, partTitle } from '@joined-hands/core/words';
import { DeskStore } from '../../platform/state/desk.store';
import { LittleKeyboard, octavesOf } from '../../ui/little-keyboard';
import { Signs } from '../../ui/signs';
import { Words } from '../../platform/words';

/** One grip of the left hand, with how often it is struck in a row and how it is reached. */
interface Grip {
  readonly chord: PartChord;
  readonly times: number;
  readonly form: string;
  readonly shape: number;
  readonly letters: string;
  readonly motion: number;
  readonly inShort: string;
}

/** The left hand of the whole song as a row of little keyboards: the same shape is seen as the same shape. */
@Component({
  selector: 'jh-progression',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [LittleKeyboard, Signs],
  templateUrl: './progression.html',
  styleUrl: './progression.less',
})
export class Progression {
  readonly arrangement = input.required<Arrangement>();
  readonly chosen = output<{ part: number; at: number }>();
  protected readonly desk = inject(DeskStore);
  protected readonly words = inject(Words);
  /** The shape under the pointer or the focus, that its likes stand out. */
  protected readonly lit = signal<string | null>(null);

  private readonly chords = computed(() => this.arrangement().parts.flatMap((p) => p.chords));
  protected readonly shapes = computed(() => shapesOf(this.chords()));

  /** The octaves that the little keyboards show: all that the song's left hand uses. */
  protected readonly range = computed(() => octavesOf(this.chords().flatMap((c) => c.pitches)));

  protected readonly rows = computed(() => {
    const numbers = new Map(this.shapes().map((s) => [s.form, s.number]));
    return this.arrangement().parts.map((part) => ({
      number: part.number,
      title: partTitle(part),
      grips: gather(part.chords).map(({ chord, times }): Grip => {
        const form = shapeOf(chord.pitches);
        return {
          chord,
          times,
          form,
          shape: numbers.get(form) ?? 0,
          letters: this.words.say().notes(chord.pitches),
          motion: chord.motion,
          inShort: changeInShort(chord.moves, this.words.say()),
        };
      }),
    }));
  });

  protected labelOf({ chord, letters, shape, motion }: Grip): string {
    return motion
      ? $localize`${chord.symbol}, ${letters}, shape ${shape}, moves ${motion}`
      : $localize`${chord.symbol}, ${letters}, shape ${shape}`;
  }

  protected readonly summary = computed(() => {
    const { totals } = this.arrangement();
    const { fact } = this.words.say();
    const grips = gripsOf(this.chords()).length;
    return [
      fact({ code: 'screen.shapes-to-learn', shapes: this.shapes().length, places: grips }),
      fact({ code: 'screen.travel', halfSteps: totals.leftTravel, inRootPosition: totals.leftTravelRoot }),
    ].join(' ');
  });
}

/** Chords in a row that are pressed again on the same keys are one grip. */
function gather(chords: readonly PartChord[]): { chord: PartChord; times: number }[] {
  const grips: { chord: PartChord; times: number }[] = [];
  for (const chord of chords) {
    const last = grips.at(-1);
    if (last?.chord.symbol === chord.symbol && last.chord.pitches.join() === chord.pitches.join()) last.times++;
    else grips.push({ chord, times: 1 });
  }
  return grips;
}
