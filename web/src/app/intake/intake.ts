import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  computed,
  effect,
  inject,
  linkedSignal,
  signal,
  viewChild,
} from '@angular/core';
import { Router } from '@angular/router';
import { capital, newDocument, type Arrangement, type Document } from '@joined-hands/core';
import type { Answers, Counted, Question, Reading, Recording, Refusal } from '@joined-hands/core/formats';
import { ShelfStore } from '../state/shelf.store';
import { Library } from '../storage/library';
import { TYPED, type TypedWay } from './typed';
import { PlayIn } from './play-in';
import { JoinStrip } from '../widgets/join-strip/join-strip';
import { Choice } from '../widgets/choice';
import { Toasts } from '../widgets/toasts';
import { Workers } from '../workers/workers';

/** The ways in, the one to begin with first. */
const WAYS = [
  { id: 'letters', text: 'Type letters' },
  { id: 'abc', text: 'Paste ABC' },
  { id: 'file', text: 'Choose a file' },
  { id: 'play', text: 'Play it in' },
] as const;
type Way = (typeof WAYS)[number]['id'];

/** Larger files are not even read. */
const LARGEST_FILE = 20_000_000;
const sizeName = (bytes: number): string =>
  bytes < 100_000 ? `${Math.ceil(bytes / 1000)} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`;
const TYPING_PAUSE_MS = 180;

/** Bringing a song in: a file, pasted ABC, or letter lines typed with a live strip under them. */
@Component({
  selector: 'jh-intake',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choice, JoinStrip, PlayIn],
  templateUrl: './intake.html',
  styleUrl: './intake.less',
})
export class Intake {
  private readonly workers = inject(Workers);
  private readonly shelf = inject(ShelfStore);
  private readonly library = inject(Library);
  private readonly toasts = inject(Toasts);
  private readonly router = inject(Router);
  private readonly editor = viewChild<ElementRef<HTMLTextAreaElement>>('editor');

  protected readonly ways = WAYS;
  protected readonly way = signal<Way>('letters');
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
  protected readonly notices = signal<readonly string[]>([]);
  protected readonly questions = signal<readonly Question[]>([]);
  protected readonly counted = signal<readonly Counted[]>([]);
  /** What the pianist answered to the questions of this file or text. */
  private answers: Answers = {};
  /** The file at hand, to be read again when a question is answered otherwise. */
  private file: { readonly name: string; readonly data: Uint8Array } | null = null;
  protected readonly leftOut = computed(() => this.counted().filter((c) => c.became === 'left out').length);
  protected readonly reading = signal(false);
  protected readonly fileName = signal('');
  protected readonly over = signal(false);
  /** The last text that could be read, as a document with its arrangement. It stays while a slip is mended. */
  protected readonly good = linkedSignal<{ way: Way; document: Document | null; arrangement: Arrangement | null }>(() => ({
    way: this.way(),
    document: null,
    arrangement: null,
  }));
  /** True where a file was read and its song is shown. */
  protected readonly taken = computed(() => this.good().document !== null && !this.reading() && this.sentence() === null);
  private turn = 0;
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

  constructor() {
    void this.restore();
    effect((onCleanup) => {
      const text = this.text();
      const way = this.way();
      if (way === 'file' || way === 'play') return;
      const timer = setTimeout(() => text !== this.last?.text && this.read(way, text), TYPING_PAUSE_MS);
      onCleanup(() => clearTimeout(timer));
    });
  }

  private async restore(): Promise<void> {
    const draft = await this.library.setting<{ letters: string; abc: string }>('draft');
    // What was typed in the meantime is newer.
    if (!draft || this.letters() !== TYPED.letters.first || this.abc() !== TYPED.abc.first) return;
    this.letters.set(draft.letters);
    this.abc.set(draft.abc);
  }

  protected type(text: string): Promise<void> {
    (this.way() === 'abc' ? this.abc : this.letters).set(text);
    return this.library.keepSetting('draft', { letters: this.letters(), abc: this.abc() });
  }

  protected choose(way: Way): void {
    this.way.set(way);
    this.answers = {};
    this.last = null;
    this.clear();
  }

  private clear(): void {
    this.turn++;
    this.refusal.set(null);
    this.sentence.set(null);
    this.notices.set([]);
    this.questions.set([]);
    this.counted.set([]);
  }

  /** Reads the same again with another answer. */
  protected async answer(question: Question, value: string): Promise<void> {
    this.answers = { ...this.answers, [question.id]: value };
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
    const turn = ++this.turn;
    if (!recording || recording.notes.length === 0) return this.clear();
    await this.show('play', turn, await this.workers.reader.readRecording(recording, this.answers));
  }

  private read(way: 'letters' | 'abc', text: string): void {
    this.last = { text, shown: this.readText(way, text) };
  }

  private async readText(way: 'letters' | 'abc', text: string): Promise<void> {
    const turn = ++this.turn;
    if (way === 'abc' && !text.trim()) return this.clear();
    const { reader } = this.workers;
    await this.show(way, turn, await (way === 'abc' ? reader.readAbc(text, this.answers) : reader.readLetters(text)));
  }

  private async show(way: Way, turn: number, read: Reading): Promise<void> {
    if (turn !== this.turn) return;
    if (!read.ok) {
      const { refusal } = read;
      const place = refusal.place ? `${capital(refusal.place)}: ` : '';
      this.refusal.set(refusal);
      this.sentence.set(`${place}${refusal.cause} ${refusal.wayOut}`);
      return;
    }
    const document = newDocument(read.song);
    const arrangement = await this.workers.arranger.arrange(document);
    if (turn !== this.turn) return;
    this.refusal.set(null);
    this.sentence.set(null);
    this.notices.set(read.notices);
    this.questions.set(read.questions);
    this.counted.set(read.counted);
    this.good.set({ way, document, arrangement });
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

  protected async takeFile(file: File | undefined | null): Promise<void> {
    this.over.set(false);
    if (!file) return;
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
    const turn = ++this.turn;
    this.reading.set(true);
    const opened = await this.workers.reader.open(file.name, file.data, null, this.answers);
    if (turn !== this.turn) return;
    this.reading.set(false);
    if (!opened.ok) return this.sentence.set(opened.sentence);
    const arrangement = await this.workers.arranger.arrange(opened.document);
    if (turn !== this.turn) return;
    this.sentence.set(null);
    this.notices.set(opened.notices);
    this.questions.set(opened.questions);
    this.counted.set(opened.counted);
    this.good.set({ way: 'file', document: opened.document, arrangement });
  }

  protected cancel(): void {
    this.turn++;
    this.workers.stopReading();
    this.reading.set(false);
    this.sentence.set('Reading was stopped. Nothing was changed; choose another file.');
  }

  protected drop(event: DragEvent): void {
    event.preventDefault();
    void this.takeFile(event.dataTransfer?.files[0]);
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
    const id = await this.shelf.add(document).catch(() => null);
    if (id === null) {
      this.kept = null;
      return this.toasts.say('The browser has no room for this song. Take songs out of the bin for good, then press again.');
    }
    const typed = this.typed();
    if (typed) await this.type(typed.first);
    await this.router.navigate(['/desk', id]);
  }
}
