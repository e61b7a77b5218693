import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  type OnDestroy,
  computed,
  effect,
  inject,
  linkedSignal,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { NzSpinComponent } from 'ng-zorro-antd/spin';
import { Router } from '@angular/router';
import type { Arrangement } from '@joined-hands/core/arrange';
import { applyEdit, newDocument, type Document, type SongFacts } from '@joined-hands/core/song';
import { COUNTED_LABELS, QUESTION_LABELS, refusalWords } from '@joined-hands/core/words';
import type { Answers, Counted, Found, Notice, Question, Reading, Recording, Refusal } from '@joined-hands/core/formats';
import { ShelfStore } from '../../platform/state/shelf.store';
import { Incoming } from '../../platform/state/incoming';
import { Library, STORAGE_SENTENCES, storageTrouble } from '../../platform/storage/library';
import { TYPED, type TypedWay } from './typed';
import { PlayIn } from './play-in';
import { JoinStrip } from '../../ui/join-strip/join-strip';
import { Fold } from '../../ui/fold';
import { Dropdown } from '../../ui/dropdown';
import { SongFactsForm } from '../../ui/song-facts';
import { Choice } from '../../ui/choice';
import { downloadProject } from '../../platform/download';
import { Toasts } from '../../platform/toasts';
import type { Answer } from '../../platform/workers/worker-client';
import { TROUBLE, Workers } from '../../platform/workers/workers';
import { Words } from '../../platform/words';
import { latestWins } from '../../platform/latest';

/** The ways in, the one to begin with first. */
const WAYS = [
  { id: 'letters', text: 'Type letters' },
  { id: 'abc', text: 'Paste ABC' },
  { id: 'file', text: 'Choose a file' },
  { id: 'play', text: 'Play it in' },
] as const;
type IntakeSource = (typeof WAYS)[number]['id'];

/** Larger files are not even read. */
const LARGEST_FILE = 20_000_000;
const sizeName = (bytes: number): string =>
  bytes < 100_000 ? `${Math.ceil(bytes / 1000)} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`;
const TYPING_PAUSE_MS = 180;
/** Milliseconds after which a text that is still being read is said to be, with a way to stop it. */
const SLOW_MS = 500;
/** Letters of a typed text that are kept for the next visit; a longer one is a file of its own. */
const LONGEST_DRAFT = 200_000;

/** Bringing a song in: a file, pasted ABC, or letter lines typed with a live strip under them. */
@Component({
  selector: 'jh-intake',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choice, Fold, JoinStrip, NzSpinComponent, Dropdown, PlayIn, SongFactsForm],
  templateUrl: './intake.html',
  styleUrl: './intake.less',
})
export class Intake implements OnDestroy {
  private readonly workers = inject(Workers);
  private readonly shelf = inject(ShelfStore);
  private readonly library = inject(Library);
  private readonly toasts = inject(Toasts);
  private readonly router = inject(Router);
  protected readonly words = inject(Words);
  protected readonly countedLabels = COUNTED_LABELS;
  private readonly editor = viewChild<ElementRef<HTMLTextAreaElement>>('editor');

  protected readonly ways = WAYS;
  protected readonly way = signal<IntakeSource>('letters');
  protected readonly letters = signal<string>(TYPED.letters.first);
  protected readonly abc = signal('');
  /** What is known of the notation at hand; null where nothing is typed. */
  protected readonly typed = computed((): TypedWay | null => {
    const way = this.way();
    return way === 'letters' || way === 'abc' ? TYPED[way] : null;
  });
  protected readonly text = computed(() => (this.way() === 'abc' ? this.abc() : this.letters()));
  protected readonly refusal = signal<Refusal | null>(null);
  protected readonly sentence = signal<string | null>(null);
  protected readonly notices = signal<readonly Notice[]>([]);
  protected readonly questions = signal<readonly Question[]>([]);
  protected readonly counted = signal<readonly Counted[]>([]);
  /** What the pianist answered to the questions of this file or text. */
  private answers: Answers = {};
  /** The file at hand, to be read again when a question is answered otherwise. */
  private file: { readonly name: string; readonly data: Uint8Array } | null = null;
  /** The questions in words, each with what one may answer. */
  protected readonly asked = computed(() =>
    this.questions().map(({ id, value, entries }) => ({
      id,
      value,
      label: QUESTION_LABELS[id],
      entries: entries.map((e) => ({ id: e.id, text: this.words.say().fact(e.fact) })),
    })),
  );
  protected readonly found = computed(() => {
    const leftOut = this.counted().filter((c) => c.became === 'left out').length;
    return `Found in the file: ${leftOut === 0 ? 'everything is used' : `${this.words.say().count(leftOut, 'kind of sign', 'kinds of sign')} left out`}`;
  });
  /** What is being read, as it is named there; null where nothing is. */
  protected readonly reading = signal<string | null>(null);
  protected readonly fileName = signal('');
  protected readonly over = signal(false);
  /** The last text that could be read, as a document with its arrangement. It stays while a slip is mended. */
  protected readonly good = linkedSignal<{ way: IntakeSource; document: Document | null; arrangement: Arrangement | null }>(
    () => ({
      way: this.way(),
      document: null,
      arrangement: null,
    }),
  );
  /** True where a file was read and its song is shown. */
  protected readonly taken = computed(() => this.good().document !== null && this.reading() === null && this.sentence() === null);
  private readonly begin = latestWins();
  /** What was put on the desk. */
  private kept: Document | null = null;
  /** What was read last, or is being read: the text where it is one, and when it is shown. */
  private last: { readonly text: string | null; readonly shown: Promise<void> } | null = null;

  /** The line with the trouble, cut where it begins and ends. */
  protected readonly troubled = computed(() => {
    const refusal = this.refusal();
    if (!refusal?.line || !refusal.columns) return null;
    const line = this.text().split('\n')[refusal.line - 1] ?? '';
    const [from, to] = refusal.columns;
    return { number: refusal.line, before: line.slice(0, from), at: line.slice(from, to), after: line.slice(to) };
  });

  private readonly incoming = inject(Incoming);

  constructor() {
    void this.restore();
    effect(() => {
      if (this.incoming.files().length > 0) untracked(() => void this.takeFiles(this.incoming.take()));
    });
    effect((onCleanup) => {
      const text = this.text();
      const way = this.way();
      if (way === 'file' || way === 'play') return;
      const timer = setTimeout(() => text !== this.last?.text && this.read(way, text), TYPING_PAUSE_MS);
      onCleanup(() => clearTimeout(timer));
    });
  }

  /** What is left is not read to its end. */
  ngOnDestroy(): void {
    if (this.reading() !== null) this.workers.reader.stop();
  }

  private async restore(): Promise<void> {
    // Without storage there is no draft.
    const draft = await this.library.setting<{ letters: string; abc: string }>('draft').catch(() => null);
    // What was typed in the meantime is newer.
    if (!draft || this.letters() !== TYPED.letters.first || this.abc() !== TYPED.abc.first) return;
    this.letters.set(draft.letters);
    this.abc.set(draft.abc);
  }

  protected type(text: string): Promise<void> {
    (this.way() === 'abc' ? this.abc : this.letters).set(text);
    const short = (draft: string): string => (draft.length > LONGEST_DRAFT ? '' : draft);
    const draft = { letters: short(this.letters()), abc: short(this.abc()) };
    return this.library.keepSetting('draft', draft).catch(() => undefined);
  }

  protected choose(way: IntakeSource): void {
    this.way.set(way);
    this.answers = {};
    this.facts = {};
    this.last = null;
    this.clear();
  }

  private clear(): void {
    this.begin();
    this.reading.set(null);
    this.refusal.set(null);
    this.sentence.set(null);
    this.notices.set([]);
    this.questions.set([]);
    this.counted.set([]);
  }

  /** Reads the same again with another answer. */
  protected async answer(question: Question['id'], value: string): Promise<void> {
    this.answers = { ...this.answers, [question]: value };
    if (this.way() === 'abc') this.read('abc', this.abc());
    else if (this.way() === 'play') this.takeRecording(this.recording);
    else if (this.file) await this.readFile();
  }

  private recording: Recording | null = null;

  /** A tune as it is played in, after every key in steps and at the end in time. */
  protected takeRecording(recording: Recording | null): void {
    this.recording = recording;
    this.last = { text: null, shown: this.readRecording(recording) };
  }

  private async readRecording(recording: Recording | null): Promise<void> {
    const isLatest = this.begin();
    if (!recording || recording.notes.length === 0) return this.clear();
    await this.show(
      'play',
      isLatest,
      await this.awaited(isLatest, 'what you played', this.workers.reader.call('readRecording', recording, this.answers)),
    );
  }

  private read(way: 'letters' | 'abc', text: string): void {
    this.last = { text, shown: this.readText(way, text) };
  }

  private async readText(way: 'letters' | 'abc', text: string): Promise<void> {
    const isLatest = this.begin();
    if (way === 'abc' && !text.trim()) return this.clear();
    const { reader } = this.workers;
    // Only the text as it stands now is worth reading.
    reader.skipWaiting();
    const read = way === 'abc' ? reader.call('readAbc', text, this.answers) : reader.call('readLetters', text);
    await this.show(way, isLatest, await this.awaited(isLatest, 'the text', read));
  }

  /** An answer of the reader; where it takes longer, that is said, with a way to stop it. */
  private async awaited<T>(isLatest: () => boolean, what: string, answer: Promise<Answer<T>>): Promise<Answer<T>> {
    const timer = setTimeout(() => isLatest() && this.reading.set(what), SLOW_MS);
    const read = await answer;
    clearTimeout(timer);
    if (isLatest()) this.reading.set(null);
    return read;
  }

  private async show(way: IntakeSource, isLatest: () => boolean, answer: Answer<Reading>): Promise<void> {
    if (!isLatest()) return;
    if (!answer.ok) return this.sentence.set(`This could not be read: ${TROUBLE[answer.trouble]}. Shorten it, or choose a file.`);
    const read = answer.value;
    if (!read.ok) {
      const { refusal } = read;
      this.refusal.set(refusal);
      this.sentence.set(refusalWords(refusal, this.words.say()));
      return;
    }
    await this.preview(way, isLatest, newDocument(read.song), read);
  }

  /** Shows a song that was read, arranged, with what was found beside it. */
  private async preview(
    way: IntakeSource,
    isLatest: () => boolean,
    document: Document,
    found: Pick<Found, 'notices' | 'questions' | 'counted'>,
  ): Promise<void> {
    const changed = applyEdit(document, { code: 'edit.facts', change: this.facts });
    const arranged = await this.workers.arranger.call('arrange', changed);
    if (!isLatest()) return;
    this.refusal.set(null);
    if (!arranged.ok)
      return this.sentence.set(`The song was read, but could not be arranged: ${TROUBLE[arranged.trouble]}. Try a shorter one.`);
    this.sentence.set(null);
    this.notices.set(found.notices);
    this.questions.set(found.questions);
    this.counted.set(found.counted);
    this.good.set({ way, document: changed, arrangement: arranged.value });
  }

  /** What was put right in the song as it was read, for as long as it is the same file or text. */
  private facts: Partial<SongFacts> = {};

  protected async change(facts: Partial<SongFacts>): Promise<void> {
    const { way, document } = this.good();
    if (!document) return;
    this.facts = { ...this.facts, ...facts };
    const found = { notices: this.notices(), questions: this.questions(), counted: this.counted() };
    await this.preview(way, this.begin(), document, found);
  }

  /** Puts the cursor on the trouble. */
  protected showTrouble(): void {
    const refusal = this.refusal();
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

  protected async takeFiles(files: readonly File[]): Promise<void> {
    this.over.set(false);
    const file = files.at(0);
    if (!file) return;
    if (files.length > 1) this.toasts.say(`Only ${file.name} was opened. Add the other ${files.length - 1} one at a time.`);
    this.choose('file');
    if (file.size > LARGEST_FILE)
      return this.sentence.set(`${file.name}: The file is larger than 20 MB. Choose a file with one song.`);
    this.fileName.set(`${file.name} (${sizeName(file.size)})`);
    this.file = { name: file.name, data: new Uint8Array(await file.arrayBuffer()) };
    this.answers = {};
    await this.readFile();
  }

  private async readFile(): Promise<void> {
    const { file } = this;
    if (!file) return;
    const isLatest = this.begin();
    this.reading.set(this.fileName());
    const opened = await this.workers.reader.call('open', file.name, file.data, null, this.answers);
    if (!isLatest()) return;
    this.reading.set(null);
    if (!opened.ok) return this.sentence.set(`${file.name} could not be read: ${TROUBLE[opened.trouble]}. Choose another file.`);
    if (!opened.value.ok) return this.sentence.set(`${opened.value.name}: ${this.words.say().fact(opened.value.fault)}`);
    await this.preview('file', isLatest, opened.value.document, opened.value);
  }

  protected cancel(): void {
    this.begin();
    this.workers.reader.stop();
    this.reading.set(null);
    this.sentence.set(`Reading was stopped. Nothing was changed; ${this.typed() ? 'shorten the text' : 'choose another file'}.`);
  }

  protected dragOver(event: DragEvent): void {
    event.preventDefault();
    this.over.set(true);
  }

  protected async keep(): Promise<void> {
    const [way, text] = [this.way(), this.text()];
    // What was typed last is what is kept, even where it was not looked at yet.
    if ((way === 'letters' || way === 'abc') && this.last?.text !== text) this.read(way, text);
    await this.last?.shown;
    if (way !== this.way() || text !== this.text()) return;
    const { document } = this.good();
    if (!document || this.sentence() || this.kept === document) return;
    // Pressed twice, it is still one song.
    this.kept = document;
    let id: string;
    try {
      id = await this.shelf.add(document);
    } catch (error) {
      this.kept = null;
      const save = {
        label: 'Save it as a file',
        run: () => downloadProject(document.song.title, document),
      };
      return this.toasts.say(STORAGE_SENTENCES[storageTrouble(error)], save);
    }
    const typed = this.typed();
    if (typed) await this.type(typed.first);
    await this.router.navigate(['/desk', id]);
  }
}
