import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { NgTemplateOutlet } from '@angular/common';
import { Actions } from '../../platform/state/actions';
import { DeskStore } from '../../platform/state/desk.store';
import { Viewport } from '../../platform/viewport';
import { Words } from '../../platform/words';
import { SettingsStore } from '../../platform/state/settings.store';
import { Choice } from '../../ui/choice';
import { Icon, type IconName } from '../../ui/icon';
import { Go } from '../../ui/go';
import { Slider } from '../../ui/slider';
import { Pop } from '../../ui/pop';
import { Pressed } from '../../ui/pressed';

const SCOPES = [
  { id: 'part', text: $localize`This part` },
  { id: 'to-here', text: $localize`Up to here` },
] as const;

/** Start and stop, tempo, what is heard, count-in and click; the way back at the right. */
@Component({
  selector: 'jh-transport',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choice, Go, Icon, NgTemplateOutlet, Pop, Pressed, Slider],
  template: `
    <jh-go [going]="playing() !== 'silent'" (pressed)="toggled.emit()" data-testid="play" />
    <div class="tempo">
      <span i18n data-testid="tempo"><span class="sign">♩</span> {{ tempo() }} of {{ songTempo() }}</span>
      <jh-slider
        i18n-label
        label="Tempo in percent"
        [from]="40"
        [to]="120"
        [step]="5"
        [value]="settings.tempoPercent()"
        (valueChange)="settings.set({ tempoPercent: $event })"
      />
    </div>
    <ng-template #others>
      <jh-choice
        class="small"
        i18n-label
        label="What is heard"
        [entries]="scopes"
        [value]="scope()"
        (chosen)="scopeChosen.emit($event)"
      />
      <button i18n class="tick" [jhPressed]="settings.countIn()" (click)="settings.set({ countIn: !settings.countIn() })">
        Count in
      </button>
      <button i18n class="tick" [jhPressed]="settings.click()" (click)="settings.set({ click: !settings.click() })">Click</button>
      <ng-content />
    </ng-template>
    @if (viewport.isPhone()) {
      <jh-pop i18n-label label="Play" [value]="scopeText()" [up]="true"
        ><ng-template>
          <div class="others"><ng-container [ngTemplateOutlet]="others" /></div> </ng-template
      ></jh-pop>
    } @else {
      <ng-container [ngTemplateOutlet]="others" />
    }
    <span class="say" aria-live="polite">{{ trouble() ?? (playing() === 'loading' ? loading : '') }}</span>
    <span class="back">
      @for (way of ways(); track way.word) {
        <button
          type="button"
          class="icon"
          [disabled]="way.label === null"
          (click)="way.run()"
          [attr.aria-label]="way.says"
          [title]="way.title"
        >
          <jh-icon [name]="way.icon" />
        </button>
      }
    </span>
  `,
  styleUrl: './transport.less',
})
export class Transport {
  readonly playing = input.required<'silent' | 'loading' | 'playing'>();
  readonly tempo = input.required<number>();
  readonly songTempo = input.required<number>();
  readonly scope = input.required<'part' | 'to-here'>();
  readonly trouble = input<string | null>(null);
  readonly toggled = output();
  readonly scopeChosen = output<'part' | 'to-here'>();
  protected readonly scopes = SCOPES;
  protected readonly loading = $localize`Loading the piano…`;
  protected readonly settings = inject(SettingsStore);
  protected readonly desk = inject(DeskStore);
  protected readonly viewport = inject(Viewport);
  private readonly words = inject(Words);
  protected readonly scopeText = computed(() => SCOPES.find((s) => s.id === this.scope())?.text ?? '');

  /** The ways back and forth, each with what it would do. */
  protected readonly ways = computed(() => [
    wayOf($localize`Undo`, this.words.fact(this.desk.undoable()), () => this.desk.undo(), 'undo'),
    wayOf($localize`Redo`, this.words.fact(this.desk.redoable()), () => this.desk.redo(), 'redo'),
  ]);

  constructor() {
    inject(Actions).register(() => {
      const { settings } = this;
      return [
        {
          name: settings.click() ? $localize`Click off` : $localize`Click on`,
          run: () => settings.set({ click: !settings.click() }),
        },
        {
          name: settings.countIn() ? $localize`Count-in off` : $localize`Count-in on`,
          run: () => settings.set({ countIn: !settings.countIn() }),
        },
        {
          name: $localize`Slower`,
          keywords: $localize`tempo, speed`,
          run: () => settings.set({ tempoPercent: Math.max(40, settings.tempoPercent() - 10) }),
        },
        {
          name: $localize`Faster`,
          keywords: $localize`tempo, speed`,
          run: () => settings.set({ tempoPercent: Math.min(120, settings.tempoPercent() + 10) }),
        },
        { name: $localize`Hear this part`, run: () => this.scopeChosen.emit('part') },
        { name: $localize`Hear the song up to here`, run: () => this.scopeChosen.emit('to-here') },
      ];
    });
  }
}

function wayOf(word: string, label: string | null, go: () => Promise<void>, icon: IconName) {
  const says = label ? `${word}: ${label}` : word;
  return { word, label, icon, says, title: label ? says : $localize`Nothing to ${word.toLowerCase()}`, run: () => void go() };
}
