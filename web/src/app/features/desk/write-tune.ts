import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import type { Recording } from '@joined-hands/core/formats';
import { refusalWords } from '@joined-hands/core/words';
import { DeskStore } from '../../platform/state/desk.store';
import { SettingsStore } from '../../platform/state/settings.store';
import { Words } from '../../platform/words';
import { TROUBLE, Workers } from '../../platform/workers/workers';
import { Choice } from '../../ui/choice';
import { Modal } from '../../ui/modal';
import { PlayIn } from '../../ui/play-in/play-in';

/** A melody for a song that has words and chords alone, typed in letter lines over its own bars. */
@Component({
  selector: 'jh-write-tune',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choice, Modal, PlayIn],
  template: `
    <button i18n type="button" class="btn small" (click)="begin()">Add the melody</button>
    <jh-modal i18n-label label="Add the melody" width="min(860px, 94vw)" [(open)]="open">
      <ng-template>
        <h2 i18n>Add the melody</h2>
        <jh-choice i18n-label label="How to add it" [entries]="ways" [value]="way()" (chosen)="way.set($event)" />
        @if (way() === 'played') {
          <p i18n>Its bars are counted from the first one. The chords stay as they are.</p>
          <jh-play-in [song]="desk.document()?.song ?? null" (played)="recording.set($event)" />
        } @else {
          <p i18n>Write letters in place of the dots of each “tune” line, one a count: C4 D - E. The chords stay as they are.</p>
          <textarea
            #lines
            class="field"
            rows="14"
            spellcheck="false"
            autocomplete="off"
            i18n-aria-label
            aria-label="Letter lines"
            [value]="text()"
            (input)="text.set(lines.value)"
          ></textarea>
        }
        @if (fault(); as sentence) {
          <p class="fault" role="alert">{{ sentence }}</p>
        }
        <div class="acts">
          <button i18n type="button" class="btn main" (click)="keep()">Keep this melody</button>
          <button i18n type="button" class="btn" (click)="open.set(false)">Cancel</button>
        </div>
      </ng-template>
    </jh-modal>
  `,
  styles: `
    textarea {
      width: 100%;
      font-family: monospace;
    }
    .acts {
      display: flex;
      gap: 8px;
      margin-top: 12px;
    }
  `,
})
export class WriteTune {
  protected readonly desk = inject(DeskStore);
  protected readonly ways = [
    { id: 'typed' as const, text: $localize`Type it` },
    { id: 'played' as const, text: $localize`Play or sing it` },
  ];
  protected readonly way = signal<'typed' | 'played'>('typed');
  protected readonly recording = signal<Recording | null>(null);
  private readonly settings = inject(SettingsStore);
  private readonly workers = inject(Workers);
  private readonly words = inject(Words);
  protected readonly open = signal(false);
  protected readonly text = signal('');
  protected readonly fault = signal<string | null>(null);

  /** The song's own bars as letter lines, with rests where the melody goes. */
  protected async begin(): Promise<void> {
    const document = this.desk.document();
    if (!document) return;
    const lines = await this.workers.arranger.call('write', 'letters', document, this.settings.noteNames());
    this.fault.set(null);
    this.recording.set(null);
    this.text.set(lines.ok ? String(lines.value) : '');
    this.open.set(true);
  }

  protected async keep(): Promise<void> {
    const [recording, song] = [this.recording(), this.desk.document()?.song];
    if (this.way() === 'played' && !recording?.notes.length) {
      this.fault.set($localize`There is no note yet. Play or sing the melody first.`);
      return;
    }
    const read =
      this.way() === 'played' && recording
        ? await this.workers.reader.call('readRecording', recording, {})
        : await this.workers.reader.call('readLetters', this.text());
    if (!read.ok) {
      this.fault.set($localize`This could not be read: ${TROUBLE[read.trouble]}. Shorten it, or try again.`);
    } else if (!read.value.ok) {
      this.fault.set(refusalWords(read.value.refusal, this.words.say()));
    } else {
      this.open.set(false);
      // Played notes are counted from their own pick-up, the song's from its own.
      const by = (song?.pickup ?? 0) - read.value.song.pickup;
      const notes = read.value.song.melody.map((n) => ({ ...n, at: n.at + by })).filter((n) => n.at >= 0);
      await this.desk.edit({ code: 'edit.tune', notes });
    }
  }
}
