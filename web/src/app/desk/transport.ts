import { ChangeDetectionStrategy, Component, inject, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { NzSliderModule } from 'ng-zorro-antd/slider';
import { Actions } from '../state/actions';
import { DeskStore } from '../state/desk.store';
import { SettingsStore } from '../state/settings.store';
import { Choice } from '../widgets/choice';
import { Go } from '../widgets/go';
import { Pressed } from '../widgets/pressed';

const SCOPES = [
  { id: 'part', text: 'This part' },
  { id: 'to-here', text: 'Up to here' },
] as const;

/** Start and stop, tempo, what is heard, count-in and click; the way back at the right. */
@Component({
  selector: 'jh-transport',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choice, FormsModule, Go, NzSliderModule, Pressed],
  template: `
    <jh-go [going]="playing() !== 'silent'" (pressed)="toggled.emit()" data-testid="play" />
    <div class="tempo">
      <span data-testid="tempo"><span class="sign">♩</span> {{ tempo() }} of {{ songTempo() }}</span>
      <nz-slider
        [nzMin]="40"
        [nzMax]="120"
        [nzStep]="5"
        nzTooltipVisible="never"
        aria-label="Tempo in percent"
        [ngModel]="settings.tempoPercent()"
        (ngModelChange)="settings.set({ tempoPercent: $event })"
      />
    </div>
    <jh-choice class="small" label="What is heard" [entries]="scopes" [value]="scope()" (chosen)="scopeChosen.emit($event)" />
    <button class="tick" [jhPressed]="settings.countIn()" (click)="settings.set({ countIn: !settings.countIn() })">
      Count in
    </button>
    <button class="tick" [jhPressed]="settings.click()" (click)="settings.set({ click: !settings.click() })">Click</button>
    <ng-content />
    <span class="say" aria-live="polite">{{ trouble() ?? (playing() === 'loading' ? 'Opening the piano …' : '') }}</span>
    <span class="back">
      <button
        type="button"
        class="icon"
        [disabled]="desk.undoLabel() === null"
        (click)="desk.undo()"
        [attr.aria-label]="'Undo' + (desk.undoLabel() ? ': ' + desk.undoLabel() : '')"
        [title]="desk.undoLabel() ? 'Undo: ' + desk.undoLabel() : 'Nothing to undo'"
      >
        <svg width="20" height="20" viewBox="0 0 20 20" aria-hidden="true">
          <path d="M7 4 3 8l4 4M3.5 8h8a5 5 0 0 1 0 10H8" />
        </svg>
      </button>
      <button
        type="button"
        class="icon"
        [disabled]="desk.redoLabel() === null"
        (click)="desk.redo()"
        [attr.aria-label]="'Redo' + (desk.redoLabel() ? ': ' + desk.redoLabel() : '')"
        [title]="desk.redoLabel() ? 'Redo: ' + desk.redoLabel() : 'Nothing to redo'"
      >
        <svg width="20" height="20" viewBox="0 0 20 20" aria-hidden="true">
          <path d="m13 4 4 4-4 4M16.5 8h-8a5 5 0 0 0 0 10H12" />
        </svg>
      </button>
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

  constructor() {
    inject(Actions).offer(() => {
      const { settings } = this;
      return [
        { name: settings.click() ? 'Click off' : 'Click on', run: () => settings.set({ click: !settings.click() }) },
        { name: settings.countIn() ? 'Count-in off' : 'Count-in on', run: () => settings.set({ countIn: !settings.countIn() }) },
        { name: 'Hear this part', run: () => this.scopeChosen.emit('part') },
        { name: 'Hear the song up to here', run: () => this.scopeChosen.emit('to-here') },
      ];
    });
  }
}
