import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { Arrangement } from '@joined-hands/core/arrange';
import {
  chordShapes,
  lessonOf,
  letterChart,
  wordLines,
  worksheet,
  type Join,
  type LessonChord,
  type LessonPart,
  type RepeatPlace,
  type PlacedReminder,
} from '@joined-hands/core/sheet';
import {
  capital,
  CAUTION,
  changeInShort,
  fingersInShort,
  hardestAdvice,
  partTitle,
  patternWords,
  repeatWords,
  sentences,
  togetherWords,
  type Speech,
} from '@joined-hands/core/words';
import { meterName } from '@joined-hands/core/time';
import { LittleKeyboard, octavesOf } from '../../ui/little-keyboard';
import { Signs } from '../../ui/signs';
import { Words } from '../../platform/words';

/** Kinds of sheet that are words and letters; the staff is engraved. */
export type PaperKind = 'letters' | 'words' | 'lesson' | 'worksheet' | 'chords';

/** A sheet to hand out: the letter chart, the lesson in steps, a worksheet with blanks, or all shapes of the left hand. */
@Component({
  selector: 'jh-paper',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [LittleKeyboard, NgTemplateOutlet, Signs],
  templateUrl: './paper.html',
  styleUrl: './paper.less',
})
export class Paper {
  private readonly usual = inject(Words);
  /** How notes are named on it, where it is for another player. */
  readonly speech = input<Speech>();
  protected readonly words = { say: computed(() => this.speech() ?? this.usual.say()) };
  protected readonly fingers = fingersInShort;
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
    return `${this.words.say().key(song.key)} · ${meterName(song.meters[0])} · ♩ = ${song.tempo}`;
  });
  protected readonly subtitle = computed(
    () =>
      ({
        letters: '',
        words: $localize`To sing from`,
        lesson: $localize`Part by part`,
        worksheet: $localize`Copy it by hand`,
        chords: $localize`All left-hand shapes`,
      })[this.kind()],
  );

  /** Words under their chords, without what a line does not show. */
  protected readonly lines = computed(() =>
    wordLines(this.arrangement())
      .filter((line) => line.under.length > 0)
      .map(({ section, under }) => ({
        section,
        under: under.map(({ chord, text }) => ({ chord, text: text.trim(), joins: text !== '' && !text.endsWith(' ') })),
      })),
  );

  protected readonly hardest = computed(() => hardestAdvice(this.lesson(), this.words.say()));
  protected readonly partTitle = partTitle;
  protected readonly caution = CAUTION;

  protected repeatOf(repeats: RepeatPlace): string {
    return capital(repeatWords(repeats));
  }

  /** Where the right hand begins, and where it goes from there. */
  protected placeWords({ start, moves }: LessonPart): string {
    return start ? sentences([start, ...moves], this.words.say()) : $localize`The right hand rests.`;
  }

  protected placeOf({ place }: PlacedReminder): string {
    return capital(this.words.say().place(place));
  }

  protected change(chord: LessonChord): string {
    return changeInShort(chord.moves, this.words.say());
  }

  protected pattern(pattern: LessonPart['pattern']): ReturnType<typeof patternWords> | null {
    return pattern && patternWords(pattern, this.words.say());
  }

  protected joinOf(join: Join): string {
    return togetherWords(join.point, this.words.say());
  }

  protected names(notes: readonly string[]): string {
    return notes.map(this.words.say().note).join(' ');
  }

  protected symbols(symbols: readonly string[]): string {
    return symbols.map(this.words.say().symbol).join(', ');
  }

  protected blank(n: number): unknown[] {
    return new Array(n).fill(0) as unknown[];
  }
}
