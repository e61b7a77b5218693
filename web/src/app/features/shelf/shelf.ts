import { ChangeDetectionStrategy, Component, ElementRef, computed, effect, inject, signal, viewChild } from '@angular/core';
import { ScrollingModule } from '@angular/cdk/scrolling';
import { FormsModule } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import type { SongCard } from '@joined-hands/core/sheet';
import { Actions } from '../../platform/state/actions';
import { DeskStore, faultSentence } from '../../platform/state/desk.store';
import { ShelfStore } from '../../platform/state/shelf.store';
import { Library, type ShelfEntry } from '../../platform/storage/library';
import { download, downloadProject } from '../../platform/download';
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
  imports: [Fold, FormsModule, More, RouterLink, ScrollingModule, Signs],
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
    return facts ? `${say.key(facts.key)} · ${facts.meter} · ${say.count(facts.bars, 'bar')}` : '';
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
  protected readonly rows = computed((): readonly (readonly ShelfEntry[])[] => {
    const [songs, columns] = [this.shelf.songs(), this.columns()];
    return Array.from({ length: Math.ceil(songs.length / columns) }, (_, i) => songs.slice(i * columns, (i + 1) * columns));
  });

  constructor() {
    inject(Actions).register(() => [{ name: 'Save the whole shelf as a file', run: () => void this.saveAll() }]);
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
    const off = { name: 'Take off the shelf', run: () => void this.remove(song, title) };
    if (card.fault) return [off];
    return [
      { name: 'Rename', run: () => this.startRename(song) },
      { name: 'Duplicate', run: () => void this.duplicate(song, title) },
      off,
    ];
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
    if (await this.shelf.duplicate(id)) this.toasts.say(`A copy of “${title}” is on the shelf.`);
  }

  private async remove({ id }: ShelfEntry, title: string): Promise<void> {
    if (this.desk.id() === id) this.desk.close();
    if (await this.shelf.remove(id))
      this.toasts.say(`“${title}” is in the bin.`, { label: 'Put it back', run: () => void this.shelf.putBack(id) });
  }

  /** A song that cannot be opened, as it is saved. */
  protected async saveRaw({ id }: ShelfEntry, { title }: SongCard): Promise<void> {
    const [song] = await this.library.raw([id]);
    if (song) downloadProject(title, song.document);
  }

  protected async saveAll(): Promise<void> {
    const saved = await this.shelf.saved();
    if (!saved) return;
    const data = await this.workers.checker.call('pack', saved);
    if (!data.ok) return this.toasts.say(`The shelf could not be saved as a file: ${TROUBLE[data.trouble]}. Try again.`);
    download(`shelf-${new Date().toISOString().slice(0, 10)}.zip`, data.value, 'application/zip');
  }

  protected async takeShelf(field: HTMLInputElement): Promise<void> {
    const file = field.files?.[0];
    field.value = '';
    if (!file) return;
    const read = await this.workers.checker.call('unpack', new Uint8Array(await file.arrayBuffer()));
    if (!read.ok) return this.fault.set(`${file.name} could not be read: ${TROUBLE[read.trouble]}. Choose another file.`);
    if (!read.value.ok) return this.fault.set(`${file.name}: ${this.words.say().fact(read.value.fault)}`);
    const { documents, faults } = read.value;
    this.fault.set(
      faults.length > 0 ? faults.map(({ name, fault }) => `${name}: ${this.words.say().fact(fault)}`).join(' ') : null,
    );
    if (!(await this.shelf.addAll(documents))) return;
    this.toasts.say(`${this.words.say().count(documents.length, 'song was', 'songs were')} added to your shelf.`);
  }

  protected day(at: number): string {
    return new Date(at).toLocaleDateString(undefined, { dateStyle: 'medium' });
  }
}
