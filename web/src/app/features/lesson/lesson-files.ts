import { proxy, transfer } from 'comlink';
import { EnvironmentInjector, Injectable, inject, signal } from '@angular/core';
import { samplesFor } from '../../platform/audio/sound-file';
import { download, fileName } from '../../platform/download';
import { latestWins } from '../../platform/latest';
import { DeskStore } from '../../platform/state/desk.store';
import { SettingsStore } from '../../platform/state/settings.store';
import type { FilmFormat } from '../../platform/workers/mixer.worker';
import { Workers } from '../../platform/workers/workers';
import { Words } from '../../platform/words';
import { FILM, framesOf } from './frames';
import { LessonRun } from './lesson-run';
import { inOneRow, takesOf, type Take } from './reel';
import { makeStills, type Stills } from './stills';
import { takenPage } from './taken-page';

/** A lesson made into files that go without the application. */
@Injectable()
export class LessonFiles {
  private readonly run = inject(LessonRun);
  private readonly desk = inject(DeskStore);
  private readonly settings = inject(SettingsStore);
  private readonly words = inject(Words);
  private readonly workers = inject(Workers);
  private readonly injector = inject(EnvironmentInjector);
  private readonly begin = latestWins();
  /** How much of the file at work is done, 0 to 1; null while none is made. */
  readonly progress = signal<number | null>(null);
  /** Why the last one was not made. */
  readonly trouble = signal<string | null>(null);

  /** Makes one page of the whole lesson, with its sound. */
  makePage(): Promise<void> {
    return this.make(async (isLatest) => {
      const title = this.title();
      const { takes, stills } = await this.drawn(this.run.script().chapters, { says: $localize`Your turn.` });
      if (!isLatest()) return;
      this.progress.set(0.5);
      const page = await takenPage(title, takes, stills);
      if (isLatest()) download(`${fileName(title)}-lesson.html`, page, 'text/html');
    });
  }

  /** The formats in which this browser can film; null until it was asked. */
  readonly formats = signal<readonly FilmFormat[] | null>(null);

  /** Asks in which formats this browser can film. */
  async look(): Promise<void> {
    if (this.formats() !== null) return;
    const can = await this.workers.film.call('films', FILM.width, FILM.height);
    this.formats.set(can.ok ? can.value : []);
  }

  /** Makes a film with sound, of the chapter at hand or of the whole lesson: what is said and shown, without the pianist's turns. */
  makeFilm(format: FilmFormat, whole: boolean): Promise<void> {
    return this.make(async (isLatest) => {
      const title = this.title();
      const { chapters } = this.run.script();
      const { takes, stills } = await this.drawn(whole ? chapters : [chapters[this.run.chapter()]], null);
      const shots = inOneRow(takes);
      const sounds = shots.flatMap(({ take, start, first }) =>
        first ? take.sounds.map((s) => ({ ...s, time: s.time + start })) : [],
      );
      const samples = await samplesFor(sounds);
      const frameOf = framesOf(stills);
      let i = 0;
      const next = async () => {
        if (!isLatest() || i >= shots.length) return null;
        const { take, shot, start, until } = shots[i];
        this.progress.set(i++ / shots.length);
        const picture = await frameOf(take, shot);
        return transfer({ picture, from: start + shot.from, seconds: until - shot.from }, [picture]);
      };
      if (!isLatest()) return;
      const made = await this.workers.film.call('film', sounds, samples, format, proxy(next));
      if (!isLatest()) return;
      if (!made.ok) throw new Error(made.trouble);
      download(`${fileName(title)}-lesson.${format}`, made.value, `video/${format}`);
    });
  }

  cancel(): void {
    this.begin();
    this.workers.film.stop();
    this.progress.set(null);
  }

  private title(): string {
    return this.desk.arrangement()?.song.title ?? '';
  }

  /** What is seen and heard of some chapters, with its drawings. */
  private async drawn(
    chapters: ReturnType<LessonRun['script']>['chapters'],
    turns: { says: string } | null,
  ): Promise<{ takes: Take[]; stills: Stills }> {
    const [arrangement, hands] = [this.desk.arrangement(), this.desk.document()?.hands];
    if (!arrangement || !hands) throw new Error('No song is open.');
    const takes = takesOf(arrangement, { chapters }, this.words.say(), turns);
    const shown = new Set(takes.flatMap((t) => t.shots.map((s) => `${s.part}:${s.view}`)));
    const stills = await makeStills(arrangement, [...shown], hands.keys, this.settings.learnBy(), this.injector);
    return { takes, stills };
  }

  private async make(work: (isLatest: () => boolean) => Promise<void>): Promise<void> {
    const isLatest = this.begin();
    this.progress.set(0);
    this.trouble.set(null);
    try {
      await work(isLatest);
    } catch {
      if (isLatest()) this.trouble.set($localize`The file could not be made here. Close other programs and try again.`);
    } finally {
      if (isLatest()) this.progress.set(null);
    }
  }
}
