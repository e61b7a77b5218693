import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { type KeyFacts } from '@joined-hands/core/arrange';
import type { Key } from '@joined-hands/core/harmony';
import { NgxEchartsDirective, provideEchartsCore } from 'ngx-echarts';
import { MissingSong } from '../../ui/missing-song';
import { openSong } from '../../platform/state/open-song';
import { Words } from '../../platform/words';
import { DeskStore } from '../../platform/state/desk.store';
import { SettingsStore } from '../../platform/state/settings.store';
import { Choice } from '../../ui/choice';
import { signRuns } from '../../ui/sign-runs';
import { Signs } from '../../ui/signs';
import { Toasts } from '../../platform/toasts';
import { TROUBLE, Workers } from '../../platform/workers/workers';
import { charts, keyChart } from './key-chart';
import { What } from '../../ui/words/what';

/** What the keys are compared by. */
const MEASURES = [
  { id: 'difficulty', text: $localize`Difficulty` },
  { id: 'black', text: $localize`Black keys` },
  { id: 'stretches', text: $localize`Wide stretches` },
  { id: 'jumps', text: $localize`Jumps` },
] as const;
export type Measure = (typeof MEASURES)[number]['id'];

/** Choosing a key: the song in all twelve, side by side, and transposed in one press. */
@Component({
  selector: 'jh-key',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MissingSong, Choice, NgxEchartsDirective, RouterLink, Signs, What],
  providers: [provideEchartsCore({ echarts: charts })],
  templateUrl: './key.html',
  styleUrl: './key.less',
})
export class KeyScreen {
  readonly id = input.required<string>();
  protected readonly desk = inject(DeskStore);
  private readonly words = inject(Words);
  private readonly settings = inject(SettingsStore);
  private readonly workers = inject(Workers);
  private readonly toasts = inject(Toasts);
  protected readonly measures = MEASURES;
  protected readonly measure = signal<Measure>('difficulty');
  protected readonly keys = signal<readonly KeyFacts[]>([]);
  protected readonly octave = computed(() => this.desk.document()?.choices.octave ?? 0);

  /** The easiest key by what is compared, the nearest signature first where several are. */
  protected readonly easiest = computed(() =>
    [...this.keys()]
      .sort(
        (a, b) =>
          this.valueOf(a) - this.valueOf(b) || a.difficulty - b.difficulty || Math.abs(a.signature) - Math.abs(b.signature),
      )
      .at(0),
  );
  protected readonly current = computed(() => this.keys().find((k) => k.current));

  protected readonly verdict = computed(() => {
    const [best, now] = [this.easiest(), this.current()];
    if (!best || !now) return $localize`Comparing all twelve keys…`;
    if (this.valueOf(best) === this.valueOf(now)) return $localize`${now.name}, the current key, is as easy as any.`;
    const unit = { difficulty: ' of 100', black: $localize`% of the notes`, stretches: '', jumps: '' }[this.measure()];
    return $localize`Easiest in ${best.name}\: ${this.valueOf(best)}${unit}, against ${this.valueOf(now)} in ${now.name}.`;
  });

  protected readonly chart = computed(() =>
    keyChart(
      this.keys().map((k) => ({
        name: signs(k.key.tonic),
        value: this.valueOf(k),
        current: k.current,
        best: k === this.easiest(),
      })),
      MEASURES.find((m) => m.id === this.measure())?.text ?? '',
      this.settings.theme(),
    ),
  );

  constructor() {
    openSong(this.id);
    effect(() => {
      const document = this.desk.document();
      if (!document) return;
      void this.workers.arranger.call('keys', document).then((keys) => {
        if (keys.ok) this.keys.set(keys.value);
        else this.toasts.say($localize`The twelve keys could not be compared: ${TROUBLE[keys.trouble]}.`);
      });
    });
  }

  protected valueOf(facts: KeyFacts): number {
    return this.measure() === 'black' ? share(facts) : facts[this.measure()];
  }

  protected share(facts: KeyFacts): string {
    return `${share(facts)}%`;
  }

  protected rangeOf({ low, high, moved }: KeyFacts): string {
    return moved ? $localize`${low} to ${high}, melody moved to fit` : $localize`${low} to ${high}`;
  }

  protected sharpsOrFlats({ signature }: KeyFacts): string {
    return this.words.say().fact({ code: 'screen.signature', signature });
  }

  protected choose(key: Key): void {
    void this.desk.edit({ code: 'edit.key', key });
  }

  protected raise(by: 1 | -1): void {
    const octave = this.octave() + by;
    void this.desk.edit({ code: 'edit.setting', range: null, setting: 'octave', value: octave });
  }

  /** A press on a bar of the chart chooses its key. */
  protected pressed(event: { dataIndex?: number }): void {
    const facts = this.keys()[event.dataIndex ?? -1];
    if (facts) this.choose(facts.key);
  }
}

/** Black keys in a hundred notes. */
const share = ({ black, notes }: KeyFacts): number => Math.round((100 * black) / Math.max(1, notes));

const signs = (text: string): string =>
  signRuns(text)
    .map((r) => r.text)
    .join('');
