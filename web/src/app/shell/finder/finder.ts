import { ChangeDetectionStrategy, Component, ElementRef, computed, inject, linkedSignal, signal, viewChild } from '@angular/core';
import { Router } from '@angular/router';
import { Actions, keyOf } from '../../platform/state/actions';
import { ShelfStore } from '../../platform/state/shelf.store';
import { Signs } from '../../ui/signs';
import { search, type Entry } from './search';

/** Finds anything that can be done here, and any song, by its name. */
@Component({
  selector: 'jh-finder',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Signs],
  templateUrl: './finder.html',
  styleUrl: './finder.less',
})
export class Finder {
  private readonly actions = inject(Actions);
  private readonly shelf = inject(ShelfStore);
  private readonly router = inject(Router);
  private readonly box = viewChild.required<ElementRef<HTMLDialogElement>>('box');
  private readonly field = viewChild.required<ElementRef<HTMLInputElement>>('field');
  private readonly list = viewChild.required<ElementRef<HTMLElement>>('list');
  protected readonly typed = signal('');
  /** Closed, it lists nothing, so that an edit has no list to follow. */
  protected readonly shown = signal(false);

  private readonly entries = computed((): readonly Entry[] => [
    ...this.actions.all().flatMap((a) => (a.run ? [{ name: a.name, hint: a.keywords ?? keyOf(a), run: a.run }] : [])),
    ...this.shelf
      .songs()
      .flatMap(({ id, card }) =>
        card ? [{ name: card.title, hint: 'song', run: () => void this.router.navigate(['/desk', id]) }] : [],
      ),
  ]);
  protected readonly found = computed(() => (this.shown() ? search(this.entries(), this.typed()) : []));
  /** The entry that Enter takes. */
  protected readonly at = linkedSignal({ source: this.found, computation: () => 0 });
  /** Opened, the field itself is what is read; an entry only once one has typed or moved. */
  protected readonly touched = signal(false);
  protected readonly active = computed(() => (this.touched() && this.found().length > 0 ? `found-${this.at()}` : null));

  open(): void {
    this.touched.set(false);
    this.typed.set('');
    // At once, so that what is typed from now on is not put behind what was typed before.
    this.field().nativeElement.value = '';
    this.shown.set(true);
    void this.shelf.load();
    this.box().nativeElement.showModal();
  }

  protected move(by: 1 | -1): void {
    const many = this.found().length;
    if (many === 0) return;
    this.touched.set(true);
    this.at.update((at) => (at + by + many) % many);
    this.list().nativeElement.children[this.at()]?.scrollIntoView({ block: 'nearest' });
  }

  protected take(entry: Entry | undefined): void {
    if (!entry) return;
    // A field that is no longer seen keeps its keys until the browser looks again.
    if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
    this.box().nativeElement.close();
    entry.run();
  }
}
