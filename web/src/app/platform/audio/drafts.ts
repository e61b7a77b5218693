import { Injectable, inject, signal } from '@angular/core';
import { inQuarters, type HeardTone } from '@joined-hands/core/hearing';
import { proxy } from 'comlink';
import { latestWins } from '../latest';
import { Workers } from '../workers/workers';
import { asHeard, HEARD_RATE, openSound, unheard } from './heard-file';

/** Seconds of a recording that are heard, and bytes of the largest file. */
const LONGEST = 600;
const MOST_BYTES = 120_000_000;

/** Quarter notes a minute where no beat was heard. */
const USUAL = 90;

/** What was made of a recording of a piano. */
export interface Draft {
  readonly name: string;
  readonly sound: AudioBuffer;
  /** Its notes in quarter notes, as they stand in the file. */
  readonly tones: readonly HeardTone[];
  /** Quarter notes a minute. */
  readonly tempo: number;
  /** The notes as a MIDI file, to be read like one. */
  readonly file: File;
}

const SOUNDS = /\.(wav|mp3|m4a|aac|ogg|oga|opus|flac|webm)$/i;

/** True for a file that sounds. */
export const isSound = (file: File): boolean =>
  SOUNDS.test(file.name) || (file.type.startsWith('audio/') && !/midi?$/i.test(file.type));

/** Makes a draft of a recording: its notes by the model, its beat by ear. Nothing of it is kept or sent. */
@Injectable({ providedIn: 'root' })
export class Drafts {
  private readonly workers = inject(Workers);
  private readonly begin = latestWins();
  /** How far the listening has come, 0 to 1; null while there is none. */
  readonly progress = signal<number | null>(null);

  /** The draft of a sound file, or why there is none; null where it was given up. */
  async of(file: File): Promise<Draft | string | null> {
    const isLatest = this.begin();
    const { name } = file;
    this.progress.set(0);
    try {
      const sound = await openSound(file, MOST_BYTES);
      if (typeof sound === 'string') return sound;
      const samples = await asHeard(sound, LONGEST);
      if (!samples) return unheard(file, 'failed');
      const beat = await this.workers.hearing.call('recording', samples, HEARD_RATE, true);
      if (!isLatest()) return null;
      const told = proxy((share: number) => {
        if (isLatest()) this.progress.set(share);
      });
      const heard = await this.workers.notes.call('tones', samples, told);
      if (!isLatest()) return null;
      if (!heard.ok) return unheard(file, heard.trouble);
      if (heard.value.length === 0) return $localize`No notes were heard in ${name}. Choose a recording of a piano alone.`;
      const found = beat.ok ? beat.value.beat : null;
      const tempo = found?.tempo ?? USUAL;
      const tones = inQuarters(heard.value, tempo, found?.first ?? heard.value[0].at);
      const title = name.replace(/\.[^.]*$/, '');
      const midi = await this.workers.reader.call('heard', title, tempo, tones);
      if (!isLatest()) return null;
      if (!midi.ok) return unheard(file, midi.trouble);
      return { name, sound, tones, tempo, file: new File([midi.value.slice()], `${title}.mid`, { type: 'audio/midi' }) };
    } finally {
      if (isLatest()) this.progress.set(null);
    }
  }

  /** Lets go of the recording at work, if there is one. */
  cancel(): void {
    if (this.progress() === null) return;
    this.begin();
    this.progress.set(null);
    this.workers.notes.stop();
  }
}
