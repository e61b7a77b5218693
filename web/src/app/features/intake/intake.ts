import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  type OnDestroy,
  computed,
  effect,
  inject,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { NzProgressComponent } from 'ng-zorro-antd/progress';
import { NzSpinComponent } from 'ng-zorro-antd/spin';
import { Router } from '@angular/router';
import { isUnsure } from '@joined-hands/core/hearing';
import { applyEdit, newDocument, type Document, type SongFacts } from '@joined-hands/core/song';
import { COUNTED_LABELS, QUESTION_LABELS, refusalWords } from '@joined-hands/core/words';
import type { Answers, Counted, Found, Question, Reading, Recording, Refusal } from '@joined-hands/core/formats';
import { Drafts, isSound, type Draft } from '../../platform/audio/drafts';
import { ShelfStore } from '../../platform/state/shelf.store';
import { Incoming } from '../../platform/state/incoming';
import { Library, STORAGE_SENTENCES, storageTrouble } from '../../platform/storage/library';
import { after, atFirst, keepable, type IntakeEvent, type Source, type Typing, type Way } from './state';
import { DraftBox } from './draft-box';
import { TYPED, type TypedWay } from './typed';
import { Preview } from './preview';
import { unsureMarks } from './unsure';
import { PlayIn } from '../../ui/play-in/play-in';
import { Fold } from '../../ui/fold';
import { Dropdown } from '../../ui/dropdown';
import { SongFactsForm } from '../../ui/song-facts';
import { Choice } from '../../ui/choice';
import { downloadProject } from '../../platform/download';
import { Tasks } from '../../platform/tasks';
import { Toasts } from '../../platform/toasts';
import type { Answer } from '../../platform/workers/worker-client';
import { TROUBLE, Workers } from '../../platform/workers/workers';
import { Words } from '../../platform/words';
import { latestWins } from '../../platform/latest';

/** The ways in, the one to begin with first. */
const WAYS = [
  { id: 'letters', text: $localize`Type letters` },
  { id: 'abc', text: $localize`Paste ABC` },
  { id: 'words', text: $localize`Words with chords` },
  { id: 'file', text: $localize`Choose a file` },
  { id: 'play', text: $localize`Play it in` },
] as const satisfies readonly { id: Way; text: string }[];

/** What became of the signs of a file. */
const BECAME: Readonly<Record<Counted['became'], string>> = {
  used: $localize`used`,
  kept: $localize`kept as signs`,
  'left out': 'left out',
};

/** Larger files are not even read. */
const LARGEST_FILE = 20_000_000;
const sizeName = (bytes: number): string =>
  bytes < 100_000 ? `${Math.ceil(bytes / 1000)} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`;
const TYPING_PAUSE_MS = 180;
/** Milliseconds after which a text that is still being read is said to be, with a way to stop it. */
const SLOW_MS = 500;
/** Letters of a typed text that are kept for the next visit; a longer one is a file of its own. */
const LONGEST_DRAFT = 200_000;

type FoundBeside = Pick<Found, 'notices' | 'questions' | 'counted'>;
/** Why there is no song, and where in the text the reason stands. */
interface Refused {
  readonly sentence: string;
  readonly refusal?: Refusal;
}

const isTyped = (way: Way): way is Typing => way in TYPED;

/** What stands in the fields that are typed in at first. */
const FIRST_TEXTS: Readonly<Record<Typing, string>> = {
  letters: TYPED.letters.first,
  abc: TYPED.abc.first,
  words: TYPED.words.first,
};

const isEmpty = (source: Source): boolean =>
  source.kind === 'recording'
    ? source.recording.notes.length === 0
    : source.kind === 'text' && source.way !== 'letters' && !source.text.trim();

/** Bringing a song in: a file, pasted ABC, or letter lines typed with a live strip under them. */
@Component({
  selector: 'jh-intake',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choice, DraftBox, Fold, NzProgressComponent, NzSpinComponent, Dropdown, PlayIn, Preview, SongFactsForm],
  templateUrl: './intake.html',
  styleUrl: './intake.less',
})
export class Intake implements OnDestroy {
  private readonly workers = inject(Workers);
  private readonly shelf = inject(ShelfStore);
  private readonly library = inject(Library);
  private readonly tasks = inject(Tasks);
  private readonly toasts = inject(Toasts);
  private readonly router = inject(Router);
  protected readonly words = inject(Words);
  protected readonly countedLabels = COUNTED_LABELS;
  protected readonly becameLabels = BECAME;
  private readonly editor = viewChild<ElementRef<HTMLTextAreaElement>>('editor');

  protected readonly ways = WAYS;
  protected readonly state = signal(atFirst('letters'));
  protected readonly way = computed(() => this.state().way);
  protected readonly song = computed(() => this.state().song);
  protected readonly keepable = computed(() => keepable(this.state()));
  /** What is at hand is read, and its song is shown. */
  protected readonly taken = computed(() => this.state().step.is === 'read');
  /** What stands in each of the fields that are typed in. */
  private readonly texts = signal<Readonly<Record<Typing, string>>>(FIRST_TEXTS);
  /** What is known of the notation at hand; null where nothing is typed. */
  protected readonly typed = computed((): TypedWay | null => {
    const way = this.way();
    return isTyped(way) ? TYPED[way] : null;
  });
  protected readonly text = computed(() => {
    const way = this.way();
    return this.texts()[isTyped(way) ? way : 'letters'];
  });
  protected readonly reading = computed(() => {
    const { step } = this.state();
    return step.is === 'reading' ? step.what : null;
  });
  protected readonly refused = computed(() => {
    const { step } = this.state();
    return step.is === 'refused' ? step : null;
  });
  /** The questions in words, each with what one may answer. */
  protected readonly asked = computed(() =>
    (this.song()?.questions ?? []).map(({ id, value, entries }) => ({
      id,
      value,
      label: QUESTION_LABELS[id],
      entries: entries.map((e) => ({ id: e.id, text: this.words.say().fact(e.fact) })),
    })),
  );
  protected readonly found = computed(() => {
    const leftOut = (this.song()?.counted ?? []).filter((c) => c.became === 'left out').length;
    return this.words.say().fact({ code: 'screen.found-in-file', leftOut });
  });
  /** The file at hand with its size. */
  protected readonly fileName = computed(() => {
    const { source } = this.state();
    return source?.kind === 'file' ? (this.draft()?.name ?? `${source.file.name} (${sizeName(source.file.size)})`) : '';
  });
  /** What was made of a recording; null where no recording is at hand. */
  protected readonly draft = signal<Draft | null>(null);
  protected readonly drafts = inject(Drafts);
  /** What was not heard clearly, where the song was heard. */
  protected readonly marks = computed(() => {
    const song = this.song();
    const { source } = this.state();
    if (!song || !source) return [];
    const heard =
      source.kind === 'recording'
        ? source.recording.notes.map((n) => ({ ...n, unsure: n.unsure ?? false }))
        : (this.draft()?.tones ?? []).map((t) => ({ ...t, unsure: isUnsure(t) }));
    return unsureMarks(heard, song.arrangement);
  });
  protected readonly over = signal(false);
  private readonly begin = latestWins();
  /** What was put on the desk. */
  private kept: Document | null = null;
  /** When what was read last, or is being read, is shown. */
  private shown: Promise<void> = Promise.resolve();

  /** The line with the trouble, cut where it begins and ends. */
  protected readonly troubled = computed(() => {
    const refusal = this.refused()?.refusal;
    if (!refusal?.line || !refusal.columns) return null;
    const line = this.text().split('\n')[refusal.line - 1] ?? '';
    const [from, to] = refusal.columns;
    return { number: refusal.line, before: line.slice(0, from), at: line.slice(from, to), after: line.slice(to) };
  });

  private readonly incoming = inject(Incoming);

  constructor() {
    void this.restore();
    effect(() => {
      if (this.incoming.files().length > 0)
        untracked(() => {
          this.takeFiles(this.incoming.take());
        });
    });
    effect((onCleanup) => {
      const text = this.text();
      const way = this.way();
      if (way === 'file' || way === 'play') return;
      const timer = setTimeout(() => !this.isRead(text) && this.read({ kind: 'text', way, text }), TYPING_PAUSE_MS);
      onCleanup(() => clearTimeout(timer));
    });
  }

  /** What is left is not read to its end. */
  ngOnDestroy(): void {
    if (this.reading() !== null) this.workers.reader.stop();
    this.drafts.cancel();
  }

  private async restore(): Promise<void> {
    // Without storage there is no draft.
    const draft = await this.library.setting<Partial<Record<Typing, string>>>('draft').catch(() => null);
    // What was typed in the meantime is newer.
    if (draft && this.texts() === FIRST_TEXTS) this.texts.set({ ...FIRST_TEXTS, ...draft });
  }

  protected type(text: string): Promise<void> {
    const way = this.way();
    if (isTyped(way)) this.texts.update((texts) => ({ ...texts, [way]: text }));
    const { letters, abc, words } = this.texts();
    const short = (draft: string): string => (draft.length > LONGEST_DRAFT ? '' : draft);
    const draft = { letters: short(letters), abc: short(abc), words: short(words) };
    return this.library.keepSetting('draft', draft).catch(() => undefined);
  }

  private is(event: IntakeEvent): void {
    this.state.update((state) => after(state, event));
  }

  /** This very text was read, or is being read. */
  private isRead(text: string): boolean {
    const source = untracked(this.state).source;
    return source?.kind === 'text' && source.text === text;
  }

  protected choose(way: Way): void {
    this.begin();
    this.draft.set(null);
    this.drafts.cancel();
    this.is({ type: 'choose', way });
  }

  /** Reads the same again with another answer. */
  protected answer(question: Question['id'], value: string): void {
    this.is({ type: 'answer', question, value });
    const { source } = this.state();
    if (source) this.read(source);
  }

  /** A tune as it is played in, after every key in steps and at the end in time. */
  protected takeRecording(recording: Recording): void {
    this.read({ kind: 'recording', recording });
  }

  private read(source: Source): void {
    this.shown = this.readAndShow(source);
  }

  private async readAndShow(source: Source): Promise<void> {
    const isLatest = this.begin();
    if (isEmpty(source)) {
      this.is({ type: 'empty' });
      return;
    }
    this.is({ type: 'begin', source });
    const timer = setTimeout(() => isLatest() && this.is({ type: 'wait', what: this.nameOf(source) }), SLOW_MS);
    const read = await this.documentOf(source);
    clearTimeout(timer);
    if (!isLatest()) return;
    if ('document' in read) await this.preview(isLatest, read.document, read.found);
    else this.is({ type: 'refuse', ...read });
  }

  private nameOf(source: Source): string {
    if (source.kind === 'file') return this.fileName();
    return source.kind === 'recording' ? $localize`what you played` : $localize`the text`;
  }

  /** The song of a source, or why there is none. */
  private async documentOf(source: Source): Promise<{ document: Document; found: FoundBeside } | Refused> {
    const { reader } = this.workers;
    const { answers } = this.state();
    const say = this.words.say();
    if (source.kind === 'file') {
      const { name } = source.file;
      // A file may be gone, or be closed to the browser, between its choice and this.
      const data = await source.file.arrayBuffer().catch(() => null);
      if (!data) return { sentence: $localize`${name} cannot be opened any more. Choose it again, or another file.` };
      const opened = await reader.call('open', name, new Uint8Array(data), null, answers);
      if (!opened.ok) return { sentence: $localize`${name} could not be read: ${TROUBLE[opened.trouble]}. Choose another file.` };
      if (!opened.value.ok) return { sentence: `${opened.value.name}: ${say.fact(opened.value.fault)}` };
      return { document: opened.value.document, found: opened.value };
    }
    const read = await this.songOf(source, answers);
    if (!read.ok) return { sentence: $localize`This could not be read: ${TROUBLE[read.trouble]}. Shorten it, or choose a file.` };
    const { value } = read;
    if (!value.ok) return { sentence: refusalWords(value.refusal, say), refusal: value.refusal };
    return { document: newDocument(value.song), found: value };
  }

  private songOf(source: Exclude<Source, { kind: 'file' }>, answers: Answers): Promise<Answer<Reading>> {
    const { reader } = this.workers;
    if (source.kind === 'recording') return reader.call('readRecording', source.recording, answers);
    // Only the text as it stands now is worth reading.
    reader.skipWaiting();
    const { way, text } = source;
    return way === 'letters'
      ? reader.call('readLetters', text)
      : reader.call(way === 'abc' ? 'readAbc' : 'readChordPro', text, answers);
  }

  /** Shows a song that was read, arranged, with what was found beside it. */
  private async preview(isLatest: () => boolean, document: Document, found: FoundBeside): Promise<void> {
    const changed = applyEdit(document, { code: 'edit.facts', change: this.state().facts });
    const arranged = await this.workers.arranger.call('arrange', changed);
    if (!isLatest()) return;
    if (!arranged.ok) {
      const sentence = $localize`The song was read, but could not be arranged: ${TROUBLE[arranged.trouble]}. Try a shorter one.`;
      this.is({ type: 'refuse', sentence });
      return;
    }
    const { notices, questions, counted } = found;
    this.is({ type: 'show', song: { document: changed, arrangement: arranged.value, notices, questions, counted } });
  }

  /** Takes what is put right in the song as it was read, for as long as it is the same source. */
  protected async change(facts: Partial<SongFacts>): Promise<void> {
    const song = this.song();
    if (!song) return;
    this.is({ type: 'correct', facts });
    await this.preview(this.begin(), song.document, song);
  }

  /** Takes the song with a note put right, or as it was before. */
  protected async correct(document: Document): Promise<void> {
    const song = this.song();
    if (song) await this.preview(this.begin(), document, song);
  }

  /** Puts the cursor on the trouble. */
  protected showTrouble(): void {
    const refusal = this.refused()?.refusal;
    const editor = this.editor()?.nativeElement;
    if (!editor || !refusal?.line) return;
    const start = this.text()
      .split('\n')
      .slice(0, refusal.line - 1)
      .reduce((sum, l) => sum + l.length + 1, 0);
    const [from, to] = refusal.columns ?? [0, 0];
    editor.focus();
    editor.setSelectionRange(start + from, start + to);
  }

  /** The files of a field, which is free for the same ones again. */
  protected filesOf(field: HTMLInputElement): readonly File[] {
    const files = [...(field.files ?? [])];
    field.value = '';
    return files;
  }

  protected takeFiles(files: readonly File[]): void {
    this.over.set(false);
    const file = files.at(0);
    if (!file) return;
    if (files.length > 1)
      this.toasts.say($localize`Only ${file.name} was opened. Add the other ${files.length - 1} one at a time.`);
    this.choose('file');
    if (isSound(file)) return void this.listenTo(file);
    if (file.size <= LARGEST_FILE) {
      this.read({ kind: 'file', file });
      return;
    }
    this.is({ type: 'refuse', sentence: $localize`${file.name}\: The file is larger than 20 MB. Choose a file with one song.` });
  }

  /** Makes a draft of a recording, and reads it like a file that was played. */
  private async listenTo(file: File): Promise<void> {
    const isLatest = this.begin();
    this.is({ type: 'wait', what: file.name });
    const draft = await this.drafts.of(file);
    if (!isLatest() || draft === null) return;
    if (typeof draft === 'string') {
      this.is({ type: 'refuse', sentence: draft });
      return;
    }
    this.draft.set(draft);
    this.read({ kind: 'file', file: draft.file });
  }

  protected cancel(): void {
    this.begin();
    this.drafts.cancel();
    this.workers.reader.stop();
    const sentence = this.typed()
      ? $localize`Reading was stopped. Nothing was changed; shorten the text.`
      : $localize`Reading was stopped. Nothing was changed; choose another file.`;
    this.is({ type: 'refuse', sentence });
  }

  protected dragOver(event: DragEvent): void {
    event.preventDefault();
    this.over.set(true);
  }

  protected async keep(): Promise<void> {
    const [way, text] = [this.way(), this.text()];
    // What was typed last is what is kept, even where it was not looked at yet.
    if (isTyped(way) && !this.isRead(text)) this.read({ kind: 'text', way, text });
    await this.shown;
    if (way !== this.way() || text !== this.text()) return;
    const document = this.keepable()?.document;
    if (!document || this.kept === document) return;
    // Pressed twice, it is still one song.
    this.kept = document;
    let id: string;
    try {
      id = await this.shelf.add(document);
    } catch (error) {
      this.kept = null;
      const save = {
        label: $localize`Save it as a file`,
        run: () => downloadProject(document.song.title, document),
      };
      this.toasts.say(STORAGE_SENTENCES[storageTrouble(error)], save);
      return;
    }
    const typed = this.typed();
    if (typed) await this.type(typed.first);
    await this.router.navigate([(await this.keptTask(id)) ? '/rehearse' : '/desk', id]);
  }

  /** Keeps the task that came with the file of a song; false where none did. */
  private async keptTask(id: string): Promise<boolean> {
    const { source } = this.state();
    if (source?.kind !== 'file' || !/\.json$/i.test(source.file.name)) return false;
    const data = await source.file.arrayBuffer().catch(() => null);
    const task = data && (await this.workers.reader.call('taskIn', new Uint8Array(data)));
    if (!task?.ok || !task.value) return false;
    await this.tasks.keep(id, task.value).catch(() => undefined);
    return true;
  }
}
