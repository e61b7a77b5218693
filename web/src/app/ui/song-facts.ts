import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, output, signal } from '@angular/core';
import { FormField, form, validateStandardSchema } from '@angular/forms/signals';
import { keyName, keysOf, MODES, type Key } from '@joined-hands/core/harmony';
import { midiOf } from '@joined-hands/core/pitch';
import { metersFor, type Song, type SongFacts } from '@joined-hands/core/song';
import { meterName, tappedTempo } from '@joined-hands/core/time';
import { MODE_LABELS } from '@joined-hands/core/words';
import * as z from 'zod';
import { line, neededLine, wholeNumber } from '../platform/form-schema';
import { Words } from '../platform/words';
import { Dropdown } from './dropdown';
import { Modal } from './modal';
import { NumberField } from './number-field';
import { TextField } from './text-field';

const LONGEST = 200;
const FACTS = z.object({
  title: neededLine(LONGEST, $localize`A song needs a title.`),
  composer: line(LONGEST),
  tempo: wholeNumber(20, 400, $localize`A tempo is 20 to 400 quarter notes a minute.`),
  tonic: z.string(),
  mode: z.enum(MODES),
  meter: z.string(),
});

/** A tonic by its place on the piano, which it keeps when another mode spells it otherwise. */
const placeOf = ({ tonic }: Key): string => `${midiOf(`${tonic}4`) % 12}`;

/** What stands over the song, put right where it was read wrong: no note moves. */
@Component({
  selector: 'jh-song-facts',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Dropdown, FormField, Modal, NumberField, TextField],
  template: `
    <button i18n type="button" class="btn small" (click)="open.set(true)">Change title, key, meter or tempo</button>
    <jh-modal i18n-label label="About the song" [(open)]="open">
      <ng-template>
        <h2 i18n>About the song</h2>
        <form novalidate (submit)="$event.preventDefault(); keep()">
          <jh-text i18n-label label="Title" [formField]="fields.title" />
          <jh-text i18n-label label="Credits" [formField]="fields.composer" />
          <div class="row">
            <p class="key">
              <span i18n>Key</span>
              <jh-dropdown i18n-label label="Key" [entries]="tonics()" [formField]="fields.tonic" />
              <jh-dropdown i18n-label label="Mode" [entries]="modes" [formField]="fields.mode" />
            </p>
            <p>
              <span i18n>Meter</span> <jh-dropdown i18n-label label="Meter" [entries]="meters()" [formField]="fields.meter" />
            </p>
            <p class="key">
              <jh-number i18n-label label="Tempo" [formField]="fields.tempo" />
              <button i18n type="button" class="btn small" (click)="tap($event.timeStamp)">Tap the beat</button>
            </p>
          </div>
          <p i18n class="soft">
            Key, mode and meter change how the song is read, not the notes. To play it higher or lower, use “Choose a key”
            instead.
          </p>
          <p class="ends">
            <button i18n type="button" class="btn" (click)="open.set(false)">Cancel</button>
            <button i18n type="submit" class="btn main" [disabled]="fields().invalid()">Save</button>
          </p>
        </form>
      </ng-template>
    </jh-modal>
  `,
  styles: `
    form {
      display: grid;
      gap: 14px;
      margin-top: 14px;
    }
    p {
      margin: 0;
    }
    .row {
      display: flex;
      flex-wrap: wrap;
      align-items: end;
      gap: 10px 22px;
      p > span {
        margin-right: 4px;
      }
      .key {
        display: flex;
        align-items: baseline;
        gap: 6px;
      }
    }
    .soft {
      color: var(--soft);
    }
    .ends {
      display: flex;
      justify-content: flex-end;
      gap: 10px;
    }
  `,
})
export class SongFactsForm {
  readonly song = input.required<Song>();
  /** The facts that were changed. */
  readonly changed = output<Partial<SongFacts>>();
  private readonly words = inject(Words);
  protected readonly open = signal(false);
  private readonly taps: number[] = [];
  private readonly now = computed(() => {
    const { title, composer, tempo, key, meters } = this.song();
    const read = { tonic: placeOf(key), mode: key.mode, meter: meterName(meters[0]) };
    return { title, composer: composer ?? '', tempo: tempo as number | null, ...read };
  });
  /** Opened again, the fields hold what is so. */
  private readonly typed = linkedSignal(() => (this.open(), this.now()));
  protected readonly fields = form(this.typed, (path) => validateStandardSchema(path, FACTS));

  /** The keys of the chosen mode; the song's own keeps its spelling. */
  private readonly readable = computed(() => {
    const { key } = this.song();
    const mode = this.typed().mode;
    return keysOf(mode).map((k) => (mode === key.mode && placeOf(k) === placeOf(key) ? key : k));
  });
  protected readonly tonics = computed(() =>
    this.readable().map((key) => ({ id: placeOf(key), text: this.words.say().note(key.tonic) })),
  );
  protected readonly modes = MODES.map((id) => ({ id, text: MODE_LABELS[id] }));
  private readonly fitting = computed(() => metersFor(this.song()));
  protected readonly meters = computed(() => this.fitting().map((m) => ({ id: meterName(m), text: meterName(m) })));

  /** Three presses in the beat of the song set its tempo, and each further one puts it right. */
  protected tap(at: number): void {
    this.taps.push(at);
    const meter = this.fitting().find((m) => meterName(m) === this.typed().meter) ?? this.song().meters[0];
    const tempo = tappedTempo(this.taps, meter);
    if (tempo !== null) this.typed.update((typed) => ({ ...typed, tempo }));
  }

  protected keep(): void {
    if (this.fields().invalid()) return;
    const [now, typed] = [this.now(), this.typed()];
    const key = this.readable().find((k) => placeOf(k) === typed.tonic);
    const meter = this.fitting().find((m) => meterName(m) === typed.meter);
    const change: Partial<SongFacts> = {
      ...(typed.title !== now.title && { title: typed.title }),
      ...(typed.composer !== now.composer && { composer: typed.composer }),
      ...(typed.tempo !== now.tempo && typed.tempo !== null && { tempo: typed.tempo }),
      ...(key && keyName(key) !== keyName(this.song().key) && { key }),
      ...(meter && typed.meter !== now.meter && { meter }),
    };
    this.open.set(false);
    if (Object.keys(change).length > 0) this.changed.emit(change);
  }
}
