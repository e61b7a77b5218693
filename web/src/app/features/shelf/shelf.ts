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
import { CdkDrag, CdkDropList, CdkDropListGroup, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { ScrollingModule } from '@angular/cdk/scrolling';
import { FormsModule } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import type { SongCard } from '@joined-hands/core/sheet';
import { Actions } from '../../platform/state/actions';
import { DeskStore, faultSentence } from '../../platform/state/desk.store';
import { ShelfStore } from '../../platform/state/shelf.store';
import { Library, type ShelfEntry } from '../../platform/storage/library';
import { download, downloadProject } from '../../platform/download';
import { NzInputDirective } from 'ng-zorro-antd/input';
import { Check } from '../../ui/check';
import { Dropdown } from '../../ui/dropdown';
import { Modal } from '../../ui/modal';
import { NowPlaying } from '../../ui/now-playing';
import { Pressed } from '../../ui/pressed';
import { TextField } from '../../ui/text-field';
import { inOrder, isFound, ORDERS, putAt, tagsOf, type ShelfOrder } from './order';
import { Fold } from '../../ui/fold';
import { More, type MenuItem } from '../../ui/more';
import { Signs } from '../../ui/signs';
import { Tour } from '../../platform/state/tour';
import { Toasts } from '../../platform/toasts';
import { TROUBLE, Workers } from '../../platform/workers/workers';
import { Words } from '../../platform/words';

/** Pixels between cards, of a row with what is below it, and the least width of a card. */
const GAP = 22;
const ROW = 258;
const NARROWEST = 300;

/** All songs, newest first. Only the rows that are seen are made. */
@Component({
  selector: 'jh-shelf',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    CdkDrag,
    CdkDropList,
    CdkDropListGroup,
    Check,
    Dropdown,
    Fold,
    FormsModule,
    Modal,
    More,
    NowPlaying,
    NzInputDirective,
    Pressed,
    TextField,
    RouterLink,
    ScrollingModule,
    Signs,
  ],
  templateUrl: './shelf.html',
  styleUrl: './shelf.less',
})
export class Shelf {
  protected readonly words = inject(Words);
  protected readonly shelf = inject(ShelfStore);
  protected readonly tour = inject(Tour);
  private readonly desk = inject(DeskStore);
  private readonly library = inject(Library);
  private readonly toasts = inject(Toasts);
  private readonly router = inject(Router);
  private readonly workers = inject(Workers);
  protected readonly row = ROW;
  protected readonly sentenceOf = faultSentence;

  /** "G minor · 3/4 · 16 bars". */
  protected aboutOf({ facts }: SongCard): string {
    const say = this.words.say();
    return facts ? `${say.key(facts.key)} · ${facts.meter} · ${say.fact({ code: 'screen.bars', bars: facts.bars })}` : '';
  }
  /** Why a shelf file could not be read. */
  protected readonly fault = signal<string | null>(null);
  protected readonly renaming = signal<string | null>(null);
  private readonly nameField = viewChild<ElementRef<HTMLInputElement>>('nameField');
  private readonly cards = viewChild<ElementRef<HTMLElement>>('cards');
  private readonly width = signal(0);
  /** Cards in a row. */
  protected readonly columns = computed(() => {
    const width = this.width();
    return Math.max(1, Math.floor((width + GAP) / (Math.max(NARROWEST, width * 0.31) + GAP)));
  });
  /** Songs up to which nothing needs to be looked for. */
  protected readonly few = 3;
  protected readonly orders = ORDERS;
  private readonly laidOut = computed(() => this.shelf.own().length > 0);
  /** What was laid out by hand lies so until another order is asked for. */
  protected readonly order = linkedSignal((): ShelfOrder => (this.laidOut() ? 'own' : 'newest'));
  /** True while a card is dragged. */
  protected readonly dragging = signal(false);
  /** How long a finger rests on a card before it takes it along, in milliseconds: shorter is scrolling. */
  protected readonly hold = { touch: 350, mouse: 0 };
  protected readonly looked = signal('');
  /** The tag whose songs are shown; null for all. */
  protected readonly tagged = signal<string | null>(null);
  protected readonly allTags = computed(() => {
    const here = new Set(this.shelf.songs().flatMap((s) => this.tagsFor(s)));
    return [...here].sort((a, b) => a.localeCompare(b));
  });
  protected readonly shown = computed(() => {
    const [looked, tag] = [this.looked(), this.tagged()];
    const found = this.shelf.songs().filter((s) => {
      const tags = this.tagsFor(s);
      return (tag === null || tags.includes(tag)) && isFound((card) => this.aboutOf(card), s, tags, looked);
    });
    return inOrder(found, this.order(), this.shelf.own());
  });
  /** The songs that are chosen to do something with at once; null while one is not choosing. */
  protected readonly chosen = signal<ReadonlySet<string> | null>(null);
  /** The song whose tags are written. */
  protected readonly tagging = signal<ShelfEntry | null>(null);
  protected readonly typedTags = signal('');

  protected tagsFor({ id }: ShelfEntry): readonly string[] {
    return this.shelf.tags()[id] ?? [];
  }

  protected marksOf(song: ShelfEntry): string {
    return [...(song.demo ? [$localize`made-up demo song`] : []), ...this.tagsFor(song)].join(' · ');
  }

  private startTags(song: ShelfEntry): void {
    this.typedTags.set(this.tagsFor(song).join(', '));
    this.tagging.set(song);
  }

  protected async keepTags({ id }: ShelfEntry): Promise<void> {
    this.tagging.set(null);
    await this.shelf.keepTags(id, tagsOf(this.typedTags()));
    const tag = this.tagged();
    if (tag !== null && !this.allTags().includes(tag)) this.tagged.set(null);
  }

  protected chooseSeveral(): void {
    this.chosen.set(this.chosen() ? null : new Set());
  }

  protected choose(id: string, chosen: boolean): void {
    const ids = new Set(this.chosen());
    if (chosen) ids.add(id);
    else ids.delete(id);
    this.chosen.set(ids);
  }

  protected async saveChosen(ids: ReadonlySet<string>): Promise<void> {
    const songs = await this.shelf.saved(ids);
    if (songs) await this.savePacked(songs, 'songs');
  }

  protected async removeChosen(ids: ReadonlySet<string>): Promise<void> {
    this.chosen.set(null);
    const gone: string[] = [];
    for (const id of ids) {
      if (this.desk.id() === id) this.desk.close();
      if (await this.shelf.remove(id)) gone.push(id);
    }
    if (gone.length === 0) return;
    const say = this.words.say();
    this.toasts.say(say.fact({ code: 'screen.binned', songs: gone.length }), {
      label: say.fact({ code: 'screen.put-back', songs: gone.length }),
      run: () => void this.putBack(gone),
    });
  }

  private async putBack(ids: readonly string[]): Promise<void> {
    for (const id of ids) await this.shelf.putBack(id);
  }

  protected readonly rows = computed((): readonly (readonly ShelfEntry[])[] => {
    const [songs, columns] = [this.shown(), this.columns()];
    return Array.from({ length: Math.ceil(songs.length / columns) }, (_, i) => songs.slice(i * columns, (i + 1) * columns));
  });

  constructor() {
    inject(Actions).register(() => [{ name: $localize`Save the whole shelf as a file`, run: () => void this.saveAll() }]);
    void this.desk.saved().then(() => this.shelf.load());
    effect((onCleanup) => {
      const list = this.cards()?.nativeElement;
      if (!list) return;
      const watch = new ResizeObserver(([{ contentRect }]) => this.width.set(contentRect.width));
      watch.observe(list);
      onCleanup(() => watch.disconnect());
    });
  }

  protected firstOf(_: number, row: readonly ShelfEntry[]): string {
    return row[0].id;
  }

  protected open(song: ShelfEntry): void {
    void this.router.navigate(['/desk', song.id]);
  }

  /** What can be done with a song beside opening it, as its menu shows it. */
  protected actions(song: ShelfEntry, card: SongCard): MenuItem[] {
    const { title } = card;
    const off = { name: $localize`Take off the shelf`, run: () => void this.remove(song, title) };
    if (card.fault) return [off];
    const at = this.shown().indexOf(song);
    return [
      { name: $localize`Rename`, run: () => this.startRename(song) },
      { name: $localize`Duplicate`, run: () => void this.duplicate(song, title) },
      { name: $localize`Tags`, run: () => this.startTags(song) },
      ...(at > 0 ? [{ name: $localize`Move forward`, run: () => this.put(song, at - 1) }] : []),
      ...(at >= 0 && at + 1 < this.shown().length ? [{ name: $localize`Move back`, run: () => this.put(song, at + 1) }] : []),
      off,
    ];
  }

  /** Puts a song where another lies among those that are shown, in one's own order from now on. */
  private put(song: ShelfEntry, at: number): void {
    const place = this.shown().at(at);
    if (!place || at < 0 || place.id === song.id) return;
    const whole = inOrder(this.shelf.songs(), this.order(), this.shelf.own()).map((s) => s.id);
    void this.shelf.keepOrder(putAt(whole, song.id, place.id));
    this.order.set('own');
  }

  /** A card was let go over a row, at a place in it. */
  protected drop({ container, previousContainer, currentIndex, item }: CdkDragDrop<number, number, ShelfEntry>): void {
    const at = container.data * this.columns() + currentIndex;
    // A card that comes from a row above leaves a gap behind it that the others close.
    const gap = container !== previousContainer && container.data > previousContainer.data ? 1 : 0;
    this.put(item.data, Math.min(at - gap, this.shown().length - 1));
  }

  protected dropInBin({ item }: CdkDragDrop<unknown, unknown, ShelfEntry>): void {
    void this.remove(item.data, item.data.card?.title ?? '');
  }

  private startRename({ id }: ShelfEntry): void {
    this.renaming.set(id);
    setTimeout(() => this.nameField()?.nativeElement.select());
  }

  protected async finishRename({ id }: ShelfEntry, before: string, title: string): Promise<void> {
    if (this.renaming() !== id) return;
    this.renaming.set(null);
    if (!title.trim() || title.trim() === before) return;
    if (this.desk.id() === id) this.desk.close();
    await this.shelf.rename(id, title);
  }

  private async duplicate({ id }: ShelfEntry, title: string): Promise<void> {
    if (await this.shelf.duplicate(id)) this.toasts.say($localize`A copy of “${title}” is on the shelf.`);
  }

  private async remove({ id }: ShelfEntry, title: string): Promise<void> {
    if (this.desk.id() === id) this.desk.close();
    if (await this.shelf.remove(id))
      this.toasts.say($localize`“${title}” is in the bin.`, {
        label: $localize`Put it back`,
        run: () => void this.shelf.putBack(id),
      });
  }

  /** A song that cannot be opened, as it is saved. */
  protected async saveRaw({ id }: ShelfEntry, { title }: SongCard): Promise<void> {
    const [song] = await this.library.raw([id]);
    if (song) downloadProject(title, song.document);
  }

  protected async saveAll(): Promise<void> {
    const saved = await this.shelf.saved();
    if (saved) await this.savePacked(saved, 'shelf');
  }

  private async savePacked(saved: unknown[], name: string): Promise<void> {
    const data = await this.workers.checker.call('pack', saved);
    if (!data.ok) {
      this.toasts.say($localize`The shelf could not be saved as a file: ${TROUBLE[data.trouble]}. Try again.`);
      return;
    }
    download(`${name}-${new Date().toISOString().slice(0, 10)}.zip`, data.value, 'application/zip');
  }

  protected async takeShelf(field: HTMLInputElement): Promise<void> {
    const file = field.files?.[0];
    field.value = '';
    if (!file) return;
    const read = await this.workers.checker.call('unpack', new Uint8Array(await file.arrayBuffer()));
    if (!read.ok) {
      this.fault.set($localize`${file.name} could not be read: ${TROUBLE[read.trouble]}. Choose another file.`);
      return;
    }
    if (!read.value.ok) {
      this.fault.set(`${file.name}: ${this.words.say().fact(read.value.fault)}`);
      return;
    }
    const { documents, tags, faults } = read.value;
    this.fault.set(
      faults.length > 0 ? faults.map(({ name, fault }) => `${name}: ${this.words.say().fact(fault)}`).join(' ') : null,
    );
    if (!(await this.shelf.addAll(documents, tags))) return;
    this.toasts.say(this.words.say().fact({ code: 'screen.songs-added', songs: documents.length }));
  }

  protected day(at: number): string {
    return new Date(at).toLocaleDateString(undefined, { dateStyle: 'medium' });
  }
}
