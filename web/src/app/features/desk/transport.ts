import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { NgTemplateOutlet } from '@angular/common';
import { Actions } from '../../platform/state/actions';
import { DeskStore } from '../../platform/state/desk.store';
import { Viewport } from '../../platform/viewport';
import { Words } from '../../platform/words';
import { SettingsStore } from '../../platform/state/settings.store';
import { Choice } from '../../ui/choice';
import { Go } from '../../ui/go';
import { Slider } from '../../ui/slider';
import { Pop } from '../../ui/pop';
import { Pressed } from '../../ui/pressed';

const SCOPES = [
  { id: 'part', text: 'This part' },
  { id: 'to-here', text: 'Up to here' },
] as const;

/** Start and stop, tempo, what is heard, count-in and click; the way back at the right. */
@Component({
  selector: 'jh-transport',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choice, Go, NgTemplateOutlet, Pop, Pressed, Slider],
  template: `
    <jh-go [going]="playing() !== 'silent'" (pressed)="toggled.emit()" data-testid="play" />
    <div class="tempo">
      <span data-testid="tempo"><span class="sign">♩</span> {{ tempo() }} of {{ songTempo() }}</span>
      <jh-slider
        label="Tempo in percent"
        [from]="40"
        [to]="120"
        [step]="5"
        [value]="settings.tempoPercent()"
        (valueChange)="settings.set({ tempoPercent: $event })"
      />
    </div>
    <ng-template #others>
      <jh-choice class="small" label="What is heard" [entries]="scopes" [value]="scope()" (chosen)="scopeChosen.emit($event)" />
      <button class="tick" [jhPressed]="settings.countIn()" (click)="settings.set({ countIn: !settings.countIn() })">
        Count in
      </button>
      <button class="tick" [jhPressed]="settings.click()" (click)="settings.set({ click: !settings.click() })">Click</button>
      <ng-content />
    </ng-template>
    @if (viewport.isPhone()) {
      <jh-pop label="Play" [value]="scopeText()" [up]="true"
        ><ng-template>
          <div class="others"><ng-container [ngTemplateOutlet]="others" /></div> </ng-template
      ></jh-pop>
    } @else {
      <ng-container [ngTemplateOutlet]="others" />
    }
    <span class="say" aria-live="polite">{{ trouble() ?? (playing() === 'loading' ? 'Loading the piano…' : '') }}</span>
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
          <svg width="20" height="20" viewBox="0 0 20 20" aria-hidden="true"><path [attr.d]="way.arrow" /></svg>
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
  protected readonly settings = inject(SettingsStore);
  protected readonly desk = inject(DeskStore);
  protected readonly viewport = inject(Viewport);
  private readonly words = inject(Words);
  protected readonly scopeText = computed(() => SCOPES.find((s) => s.id === this.scope())?.text ?? '');

  /** The ways back and forth, each with what it would do. */
  protected readonly ways = computed(() => [
    wayOf('Undo', this.words.fact(this.desk.undoable()), () => this.desk.undo(), 'M7 4 3 8l4 4M3.5 8h8a5 5 0 0 1 0 10H8'),
    wayOf('Redo', this.words.fact(this.desk.redoable()), () => this.desk.redo(), 'm13 4 4 4-4 4M16.5 8h-8a5 5 0 0 0 0 10H12'),
  ]);

  constructor() {
    inject(Actions).register(() => {
      const { settings } = this;
      return [
        { name: settings.click() ? 'Click off' : 'Click on', run: () => settings.set({ click: !settings.click() }) },
        { name: settings.countIn() ? 'Count-in off' : 'Count-in on', run: () => settings.set({ countIn: !settings.countIn() }) },
        {
          name: 'Slower',
          keywords: 'tempo, speed',
          run: () => settings.set({ tempoPercent: Math.max(40, settings.tempoPercent() - 10) }),
        },
        {
          name: 'Faster',
          keywords: 'tempo, speed',
          run: () => settings.set({ tempoPercent: Math.min(120, settings.tempoPercent() + 10) }),
        },
        { name: 'Hear this part', run: () => this.scopeChosen.emit('part') },
        { name: 'Hear the song up to here', run: () => this.scopeChosen.emit('to-here') },
      ];
    });
  }
}

function wayOf(word: string, label: string | null, go: () => Promise<void>, arrow: string) {
  const says = label ? `${word}: ${label}` : word;
  return { word, label, arrow, says, title: label ? says : `Nothing to ${word.toLowerCase()}`, run: () => void go() };
}
