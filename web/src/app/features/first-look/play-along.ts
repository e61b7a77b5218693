import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  linkedSignal,
  signal,
  untracked,
  type OnDestroy,
} from '@angular/core';
import { keyName, type Key } from '@joined-hands/core/harmony';
import type { HeardRecording } from '@joined-hands/core/hearing';
import { tappedTempo } from '@joined-hands/core/time';
import type { Edit } from '@joined-hands/core/song';
import { asHeard, HEARD_RATE, HeardFile, openSound, unheard } from '../../platform/audio/heard-file';
import { DeskStore } from '../../platform/state/desk.store';
import { Words } from '../../platform/words';
import { Workers } from '../../platform/workers/workers';
import { Choice } from '../../ui/choice';
import { Dropdown } from '../../ui/dropdown';
import { Modal } from '../../ui/modal';

/** Seconds of a recording that are listened to, and the largest file that is opened, in bytes. */
const LONGEST = 180;
const MOST_BYTES = 60_000_000;

/** The song in the key and at the tempo of a recording that one plays along with. The recording stays on this device and is not kept. */
@Component({
  selector: 'jh-play-along',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choice, Dropdown, Modal],
  template: `
    <button i18n type="button" class="btn small" (click)="open.set(true)">Set it to a recording</button>
    <jh-modal i18n-label label="Set the song to a recording" [(open)]="open">
      <ng-template>
        <h2 i18n>Set the song to a recording</h2>
        <p i18n>
          Choose a sound file that you want to play along with. Its key and tempo are found on this device; the file is neither
          kept nor sent.
        </p>
        <label class="btn">
          <ng-container i18n>Choose a sound file</ng-container>
          <input #file type="file" accept="audio/*" data-testid="recording-file" (change)="take(file)" />
        </label>
        @if (listening()) {
          <p i18n role="status">Listening to the recording…</p>
        }
        @if (fault(); as sentence) {
          <p class="fault" role="alert">{{ sentence }}</p>
        }
        @if (heard(); as recording) {
          <p role="status" data-testid="recording-heard">{{ words.say().fact({ code: 'screen.recording', recording }) }}</p>
          <p class="acts">
            <button type="button" class="btn small" data-testid="hear-recording" (click)="toggle()">
              <ng-container i18n>{sounding(), select, true {Stop} other {Hear the recording}}</ng-container>
            </button>
            <button i18n type="button" class="btn small" (click)="tap($event.timeStamp)">Tap its beat</button>
          </p>
          <div class="row">
            <span i18n>Key</span>
            <jh-dropdown
              i18n-label
              label="Key of the recording"
              [entries]="keys()"
              [value]="key()"
              (valueChange)="key.set($event)"
            />
          </div>
          <div class="row">
            <span i18n>Quarter notes a minute</span>
            <jh-choice
              class="small"
              i18n-label
              label="Tempo of the recording"
              [entries]="tempi()"
              [value]="tempo()"
              (chosen)="tempo.set($event)"
            />
          </div>
          <p i18n class="soft">
            A recording may be protected: publishing what you make from it may need permission under local law.
          </p>
        }
        <p class="acts ends">
          <button i18n type="button" class="btn" (click)="open.set(false)">Cancel</button>
          <button i18n type="button" class="btn main" [disabled]="!heard()" (click)="keep()">Set the song to it</button>
        </p>
      </ng-template>
    </jh-modal>
  `,
  styles: `
    label {
      display: inline-block;
      margin: 10px 0;
      input {
        position: absolute;
        width: 1px;
        opacity: 0;
      }
    }
    .row,
    .acts {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 10px;
      margin: 10px 0;
    }
    .ends {
      justify-content: flex-end;
    }
    .soft {
      color: var(--soft);
    }
    .fault {
      color: var(--right);
    }
  `,
})
export class PlayAlong implements OnDestroy {
  private readonly desk = inject(DeskStore);
  private readonly workers = inject(Workers);
  protected readonly words = inject(Words);
  protected readonly open = signal(false);
  protected readonly listening = signal(false);
  protected readonly fault = signal<string | null>(null);
  protected readonly heard = signal<HeardRecording | null>(null);
  protected readonly sounding = signal(false);
  private sound: HeardFile | null = null;
  private taps: number[] = [];
  private readonly tapped = signal<number | null>(null);

  /** The keys that it may be in, in the song's own mode; the song's key where none of them is. */
  private readonly offered = computed((): readonly Key[] => {
    const mode = this.desk.document()?.song.key.mode;
    // A song stays in its own mode: what is set is how high it lies.
    const near = (this.heard()?.keys ?? []).filter((k) => k.mode === mode);
    const own = this.desk.document()?.song.key;
    return near.length > 0 ? near : own ? [own] : [];
  });
  protected readonly keys = computed(() => this.offered().map((k) => ({ id: keyName(k), text: this.words.say().key(k) })));
  protected readonly key = linkedSignal(() => this.keys()[0]?.id ?? '');

  /** What may be felt as its beat: as it was found or tapped, twice as slow, twice as fast. */
  protected readonly tempi = computed(() => {
    const song = this.desk.document()?.song;
    const found = this.tapped() ?? this.heard()?.beat?.tempo ?? song?.tempo ?? 100;
    const all = [found / 2, found, found * 2].map((t) => Math.round(t)).filter((t) => t >= 20 && t <= 400);
    return all.map((t) => ({ id: `${t}`, text: `${t}` }));
  });
  protected readonly tempo = linkedSignal(() => {
    const song = this.desk.document()?.song;
    const near = (t: string) => Math.abs(Math.log2(Number(t) / (this.tapped() ?? song?.tempo ?? 100)));
    return this.tempi().reduce((best, { id }) => (near(id) < near(best) ? id : best), this.tempi()[0].id);
  });

  constructor() {
    // However the dialog is closed, the recording ends with it.
    effect(() => {
      if (!this.open()) untracked(() => this.sound?.stop());
    });
  }

  ngOnDestroy(): void {
    this.silence();
  }

  /** Opens a sound file, listens to its beginning, and keeps nothing of it but what is heard. */
  protected async take(input: HTMLInputElement): Promise<void> {
    const [file] = input.files ?? [];
    input.value = '';
    if (!file) return;
    this.silence();
    this.heard.set(null);
    this.fault.set(null);
    this.tapped.set(null);
    this.taps = [];
    this.listening.set(true);
    this.fault.set(await this.listenTo(file));
    this.listening.set(false);
  }

  /** Listens to a file; why that is not possible, or null. */
  private async listenTo(file: File): Promise<string | null> {
    const buffer = await openSound(file, MOST_BYTES);
    if (typeof buffer === 'string') return buffer;
    this.sound = new HeardFile(buffer);
    const samples = await asHeard(buffer, LONGEST);
    if (!samples) return unheard(file, 'failed');
    const found = await this.workers.hearing.call('recording', samples, HEARD_RATE, buffer.duration <= LONGEST);
    if (!found.ok) return unheard(file, found.trouble);
    this.heard.set(found.value);
    return null;
  }

  protected toggle(): void {
    if (!this.sound) return;
    if (this.sounding()) {
      this.sound.stop();
      return;
    }
    this.sound.play(() => this.sounding.set(false));
    this.sounding.set(true);
  }

  /** Three presses in the beat of the recording say it better than it was found. */
  protected tap(at: number): void {
    const meter = this.desk.document()?.song.meters[0];
    this.taps.push(at);
    const tempo = meter ? tappedTempo(this.taps, meter) : null;
    if (tempo !== null) this.tapped.set(tempo);
  }

  protected keep(): void {
    const key = this.offered().find((k) => keyName(k) === this.key());
    const song = this.desk.document()?.song;
    if (!key || !song) return;
    const edits: Edit[] = [
      ...(keyName(key) === keyName(song.key) ? [] : [{ code: 'edit.key', key } as const]),
      { code: 'edit.facts', change: { tempo: Number(this.tempo()) } },
    ];
    this.open.set(false);
    this.silence();
    void this.desk.edit({ code: 'edit.several', as: { kind: 'to-recording' }, edits });
  }

  private silence(): void {
    this.sound?.close();
    this.sound = null;
    this.sounding.set(false);
  }
}
