import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, output } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { nameOfKeys, spellKeys, type PartChord } from '@joined-hands/core/arrange';
import { Ear } from '../../platform/input/ear';
import { KeyInput } from '../../platform/input/key-input';
import { DeskStore } from '../../platform/state/desk.store';
import { Words } from '../../platform/words';
import { EarButton } from '../../ui/ear/ear-button';
import { Pressed } from '../../ui/pressed';
import { Signs } from '../../ui/signs';
import { withKey } from './pressed-keys';

/** The pianist's own keys for a chord: pressed on the screen's keyboard or a connected one, named where they have a name, and kept. */
@Component({
  selector: 'jh-own-keys',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [EarButton, Pressed, Signs],
  template: `
    <button i18n type="button" class="btn small" [jhPressed]="listening()" data-testid="own-keys" (click)="toggle()">
      Play your own keys
    </button>
    @if (listening()) {
      <p class="told" aria-live="polite">
        @if (pitches().length === 0) {
          @if (keys.device(); as device) {
            <ng-container i18n
              >Press the keys of this chord below or on {{ device }}. Press a key again to take it away.</ng-container
            >
          } @else {
            <ng-container i18n>Press the keys of this chord below. Press a key again to take it away.</ng-container>
          }
        } @else {
          <jh-signs [text]="says()" />
        }
      </p>
      @if (keys.device() === null) {
        <button i18n type="button" class="btn small" (click)="keys.connect()">Use a connected keyboard</button>
      }
      <jh-ear-button />
      @if (ear.on()) {
        <p i18n class="told">Strike one key at a time: the microphone tells single keys best.</p>
      }
      @if (keys.trouble(); as sentence) {
        <p class="told" role="alert">{{ sentence }}</p>
      }
      @if (pitches().length > 0) {
        <div class="acts">
          <button i18n type="button" class="btn small main" (click)="keep(false)">Keep these keys</button>
          <button type="button" class="btn small" (click)="keep(true)">
            <span i18n>Keep them for every <jh-signs [text]="words.say().symbol(chord().symbol)" /></span>
          </button>
        </div>
      }
    }
  `,
  styles: `
    :host {
      display: block;
      margin: 10px 0;
    }
    .told {
      margin: 8px 0;
    }
    .acts {
      margin-top: 8px;
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
    }
  `,
})
export class OwnKeys {
  readonly chord = input.required<PartChord>();
  /** The keys as they are pressed, to be shown on the keyboard; null once they are kept or let go. */
  readonly tried = output<readonly string[] | null>();
  /** Keys that are to be kept: for this chord, or wherever it comes. */
  readonly kept = output<{ readonly pitches: readonly string[]; readonly everywhere: boolean }>();
  protected readonly words = inject(Words);
  protected readonly keys = inject(KeyInput);
  protected readonly ear = inject(Ear);
  private readonly desk = inject(DeskStore);
  private readonly key = computed(() => this.desk.arrangement()?.song.key ?? { tonic: 'C', mode: 'major' as const });
  protected readonly listening = linkedSignal<number, boolean>({ source: () => this.chord().at, computation: () => false });
  private readonly midis = linkedSignal<number, readonly number[]>({ source: () => this.chord().at, computation: () => [] });
  protected readonly pitches = computed(() => spellKeys(this.midis(), this.chord().symbol, this.key()));
  /** "G C E♭, which make Cm over G." */
  protected readonly says = computed(() => {
    const say = this.words.say();
    const name = nameOfKeys(this.pitches(), this.key());
    const keys = say.pitches(this.pitches());
    return name ? `${keys}: ${say.chord(name)}.` : `${keys}.`;
  });

  constructor() {
    // Any key may be one of them: nothing is due.
    this.ear.expect([]);
    this.keys.pressed.pipe(takeUntilDestroyed()).subscribe(({ midi, source }) => {
      // What is heard again rings on, or was struck again to be heard.
      const again = source === 'microphone' && this.midis().includes(midi);
      if (this.listening() && !again) this.press(midi);
    });
  }

  private press(midi: number): void {
    const next = withKey(this.midis(), midi);
    this.midis.set(next);
    this.tried.emit(next.length > 0 ? this.pitches() : null);
  }

  protected toggle(): void {
    this.listening.update((on) => !on);
    this.midis.set([]);
    this.tried.emit(null);
  }

  protected keep(everywhere: boolean): void {
    this.kept.emit({ pitches: this.pitches(), everywhere });
    this.toggle();
  }
}
