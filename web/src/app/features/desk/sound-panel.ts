import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { comesAgain, firstAndSecondEndings, louderEachTime, timeOf, type Part } from '@joined-hands/core/arrange';
import {
  ENDINGS,
  LAST_TOUCHES,
  LOUDNESSES,
  SWELLS,
  TOUCHES,
  settingAt,
  type Choices,
  type Ending,
  type LastTouch,
  type Loudness,
  type TickRange,
  type Touch,
  type Swell,
  rangeOf,
} from '@joined-hands/core/song';
import { DeskStore } from '../../platform/state/desk.store';
import { Choice } from '../../ui/choice';
import { Pop } from '../../ui/pop';
import { Slider } from '../../ui/slider';
import { FEELS, type Feel } from '@joined-hands/core/time';
import { ENDING_LABELS, FEEL_LABELS, SWELL_LABELS, TOUCH_LABELS } from '@joined-hands/core/words';
import { Actions } from '../../platform/state/actions';
import { Words } from '../../platform/words';

const SWELL_SIGNS: Readonly<Record<Swell, string>> = { none: '', rise: '<', fall: '>', arch: '<>' };
const LAST_TOUCH_WORDS: Readonly<Record<LastTouch, string>> = {
  plain: $localize`as written`,
  rolled: $localize`rolled`,
  octave: $localize`a low octave`,
};

/** How loud it is and how it ends: dynamics and endings of the part, and the close of the song. */
@Component({
  selector: 'jh-sound-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choice, Pop, Slider],
  templateUrl: './sound-panel.html',
  styleUrl: './sound-panel.less',
})
export class SoundPanel {
  private readonly desk = inject(DeskStore);
  private readonly words = inject(Words);
  protected readonly part = this.desk.currentPart;
  protected readonly reach = signal<'part' | 'song'>('part');
  protected readonly reaches = computed(() => [
    { id: 'part' as const, text: $localize`Part ${this.part()?.number ?? ''}` },
    { id: 'song' as const, text: $localize`Whole song` },
  ]);
  protected readonly levels = LOUDNESSES.map((id) => ({ id, text: id }));
  protected readonly swells = SWELLS.map((id) => ({ id, text: SWELL_LABELS[id] }));
  protected readonly endings = ENDINGS.map((id) => ({ id, text: ENDING_LABELS[id] }));
  protected readonly feels = FEELS.map((id) => ({ id, text: FEEL_LABELS[id] }));
  protected readonly feel = computed((): Feel => this.desk.document()?.choices.feel ?? 'straight');
  protected readonly touches = TOUCHES.map((id) => ({ id, text: TOUCH_LABELS[id] }));
  protected readonly lastTouches = LAST_TOUCHES.map((id) => ({ id, text: LAST_TOUCH_WORDS[id] }));

  protected readonly loudness = computed(() => this.wish('loudness') ?? 'mf');
  protected readonly touch = computed(() => this.wish('touch') ?? 'held');
  protected readonly swell = computed(() => this.wish('swell') ?? 'none');
  protected readonly ending = computed(() => this.wish('ending') ?? 'plain');
  protected readonly balance = computed(() => this.desk.document()?.choices.balance ?? 28);
  protected readonly close = computed(
    (): Choices['close'] => this.desk.document()?.choices.close ?? { slower: 0, touch: 'plain' },
  );
  protected readonly again = computed(() => comesAgain(this.desk.arrangement()?.parts ?? []));
  /** "the 2nd of 3 times". */
  protected readonly time = computed(() => {
    const part = this.part();
    const found = part && timeOf(part.number, this.desk.arrangement()?.parts ?? []);
    return found ? $localize`time ${found.time} of ${found.of}` : '';
  });
  protected readonly value = computed(() => `${this.loudness()} ${SWELL_SIGNS[this.swell()]}`.trim());
  /** Why the ending asked for is not there. */
  protected readonly leftOut = computed(() => {
    const finding = this.desk
      .arrangement()
      ?.findings.find((f) => f.rule === 'ending-left-out' && f.at !== null && this.inPart(f.at));
    return finding ? this.words.say().fact(finding.fact) : null;
  });

  constructor() {
    inject(Actions).register(() => [
      ...FEELS.map((feel) => ({
        name: $localize`Eighth notes: ${FEEL_LABELS[feel]}`,
        keywords: $localize`feel, shuffle, jazz, even`,
        run: () => this.chooseFeel(feel),
      })),
      ...TOUCHES.map((touch) => ({
        name: $localize`Accompaniment chords: ${TOUCH_LABELS[touch]}`,
        keywords: $localize`staccato, touch, detached, legato`,
        run: () => this.chooseTouch(touch),
      })),
    ]);
  }

  private inPart(at: number): boolean {
    const part = this.part();
    return part !== null && at >= part.start && at < part.end;
  }

  private wish<K extends 'loudness' | 'swell' | 'ending' | 'touch'>(wish: K): Choices[K] | null {
    const doc = this.desk.document();
    const part = this.part();
    return doc && part ? settingAt(doc, part.start, wish) : null;
  }

  private range(): TickRange | null {
    const part = this.part();
    return this.reach() === 'part' && part ? rangeOf(part) : null;
  }

  protected chooseLoudness(loudness: Loudness): void {
    void this.desk.edit({ code: 'edit.setting', range: this.range(), setting: 'loudness', value: loudness });
  }

  protected chooseTouch(touch: Touch): void {
    void this.desk.edit({ code: 'edit.setting', range: this.range(), setting: 'touch', value: touch });
  }

  protected chooseSwell(swell: Swell): void {
    void this.desk.edit({ code: 'edit.setting', range: this.range(), setting: 'swell', value: swell });
  }

  /** An ending belongs to one part, whatever else is chosen for the song. */
  protected chooseEnding(ending: Ending): void {
    const part = this.part();
    if (!part) return;
    const range = rangeOf(part);
    void this.desk.edit({ code: 'edit.setting', range, setting: 'ending', value: ending });
  }

  protected chooseFeel(feel: Feel): void {
    void this.desk.edit({ code: 'edit.feel', feel });
  }

  protected chooseBalance(balance: number): void {
    void this.desk.edit({ code: 'edit.balance', percent: balance });
  }

  protected chooseClose(change: Partial<Choices['close']>): void {
    void this.desk.edit({ code: 'edit.close', change });
  }

  protected eachTime(way: 'louder' | 'softer'): void {
    const document = this.desk.document();
    void this.desk.edit(document && louderEachTime(document, this.parts(), way));
  }

  protected byTurns(): void {
    void this.desk.edit(firstAndSecondEndings(this.parts()));
  }

  private parts(): readonly Part[] {
    return this.desk.arrangement()?.parts ?? [];
  }
}
