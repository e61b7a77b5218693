import { ChangeDetectionStrategy, Component, ElementRef, inject, signal, viewChild } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import { keyName, layBars, meterName, resolveChords, staffStep } from '@joined-hands/core';
import { Actions } from '../state/actions';
import { DeskStore } from '../state/desk.store';
import { ShelfStore } from '../state/shelf.store';
import type { StoredSong } from '../storage/library';
import { download } from '../widgets/download';
import { More, type Deed } from '../widgets/more';
import { Signs } from '../widgets/signs';
import { Tour } from '../tour/tour';
import { Toasts } from '../widgets/toasts';
import { Workers } from '../workers/workers';

interface Card {
  readonly song: StoredSong;
  readonly title: string;
  readonly key: string;
  readonly facts: string;
  /** The first bars of the tune as small stones, x and y from 0 to 1. */
  readonly contour: readonly { readonly x: number; readonly y: number; readonly long: boolean }[];
  readonly chords: string;
}

/** All songs, newest first. */
@Component({
  selector: 'jh-shelf',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [FormsModule, More, RouterLink, Signs],
  templateUrl: './shelf.html',
  styleUrl: './shelf.less',
})
export class Shelf {
  protected readonly shelf = inject(ShelfStore);
  protected readonly tour = inject(Tour);
  private readonly desk = inject(DeskStore);
  private readonly toasts = inject(Toasts);
  private readonly router = inject(Router);
  private readonly workers = inject(Workers);
  /** Why a shelf file could not be read. */
  protected readonly fault = signal<string | null>(null);
  protected readonly renaming = signal<string | null>(null);
  private readonly nameField = viewChild<ElementRef<HTMLInputElement>>('nameField');

  constructor() {
    inject(Actions).offer(() => [{ name: 'Save the whole shelf as a file', run: () => void this.saveAll() }]);
    void this.desk.saved().then(() => this.shelf.load());
  }

  protected cardOf(stored: StoredSong): Card {
    const { song } = stored.document;
    const bars = layBars(song).filter((b) => b.number > 0).length;
    const names = new Set(resolveChords(stored.document).map((c) => c.symbol));
    return {
      song: stored,
      title: song.title,
      key: keyName(song.key),
      facts: `${meterName(song.meters[0])} · ${bars} bars`,
      contour: contourOf(stored),
      chords: [...names].slice(0, 6).join('  '),
    };
  }

  protected open(card: Card): void {
    void this.router.navigate(['/desk', card.song.id]);
  }

  /** What can be done with a song beside opening it, as its menu shows it. */
  protected doable(card: Card): Deed[] {
    return [
      { name: 'Rename', run: () => this.startRename(card) },
      { name: 'Duplicate', run: () => void this.duplicate(card) },
      { name: 'Take off the shelf', run: () => void this.remove(card) },
    ];
  }

  private startRename(card: Card): void {
    this.renaming.set(card.song.id);
    setTimeout(() => this.nameField()?.nativeElement.select());
  }

  protected async finishRename(card: Card, title: string): Promise<void> {
    if (this.renaming() !== card.song.id) return;
    this.renaming.set(null);
    if (this.desk.id() === card.song.id) this.desk.close();
    await this.shelf.rename(card.song, title);
  }

  private async duplicate(card: Card): Promise<void> {
    await this.shelf.duplicate(card.song);
    this.toasts.say(`A copy of “${card.title}” stands on the shelf.`);
  }

  private async remove(card: Card): Promise<void> {
    if (this.desk.id() === card.song.id) this.desk.close();
    await this.shelf.remove(card.song);
    this.toasts.say(`“${card.title}” is in the bin.`, { label: 'Put it back', run: () => void this.shelf.putBack(card.song.id) });
  }

  protected async saveAll(): Promise<void> {
    const data = await this.workers.reader.pack(this.shelf.songs().map((s) => s.document));
    download(`shelf-${new Date().toISOString().slice(0, 10)}.zip`, data, 'application/zip');
  }

  protected async takeShelf(field: HTMLInputElement): Promise<void> {
    const file = field.files?.[0];
    field.value = '';
    if (!file) return;
    const read = await this.workers.reader.unpack(new Uint8Array(await file.arrayBuffer()));
    if (!read.ok) return this.fault.set(`${file.name}: ${read.sentence}`);
    await this.shelf.addAll(read.documents);
    this.fault.set(read.faults.length > 0 ? read.faults.join(' ') : null);
    const songs = read.documents.length;
    this.toasts.say(`${songs === 1 ? 'One song stands' : `${songs} songs stand`} on the shelf beside yours.`);
  }

  protected day(at: number): string {
    return new Date(at).toLocaleDateString(undefined, { dateStyle: 'medium' });
  }
}

function contourOf(stored: StoredSong): Card['contour'] {
  const notes = stored.document.song.melody.slice(0, 16);
  if (notes.length === 0) return [];
  const steps = notes.map((n) => staffStep(n.pitch));
  const low = Math.min(...steps);
  const range = Math.max(1, Math.max(...steps) - low);
  const end = notes[notes.length - 1].at || 1;
  const longest = Math.max(...notes.map((n) => n.length));
  return notes.map((n, i) => ({ x: n.at / end, y: 1 - (steps[i] - low) / range, long: n.length > longest / 2 }));
}
