import {
  ApplicationRef,
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  computed,
  inject,
  linkedSignal,
  signal,
  viewChild,
} from '@angular/core';
import { Router } from '@angular/router';
import { Actions, keyOf } from '../../platform/state/actions';
import { ShelfStore } from '../../platform/state/shelf.store';
import { Modal } from '../../ui/modal';
import { Signs } from '../../ui/signs';
import { search, type Entry } from './search';

/** Finds anything that can be done here, and any song, by its name. */
@Component({
  selector: 'jh-finder',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Modal, Signs],
  templateUrl: './finder.html',
  styleUrl: './finder.less',
})
export class Finder {
  private readonly actions = inject(Actions);
  private readonly shelf = inject(ShelfStore);
  private readonly router = inject(Router);
  private readonly application = inject(ApplicationRef);
  private readonly list = viewChild<ElementRef<HTMLElement>>('list');
  protected readonly typed = signal('');
  /** Closed, it lists nothing, so that an edit has no list to follow. */
  protected readonly shown = signal(false);

  private readonly entries = computed((): readonly Entry[] => [
    ...this.actions.all().flatMap((a) => (a.run ? [{ name: a.name, hint: a.keywords ?? keyOf(a), run: a.run }] : [])),
    ...this.shelf
      .songs()
      .flatMap(({ id, card }) =>
        card ? [{ name: card.title, hint: $localize`song`, run: () => void this.router.navigate(['/desk', id]) }] : [],
      ),
  ]);
  protected readonly found = computed(() => (this.shown() ? search(this.entries(), this.typed()) : []));
  /** The entry that Enter takes. */
  protected readonly at = linkedSignal({ source: this.found, computation: () => 0 });
  /** Opened, the field itself is what is read; an entry only once one has typed or moved. */
  protected readonly touched = signal(false);
  protected readonly active = computed(() => (this.touched() && this.found().length > 0 ? `found-${this.at()}` : null));

  open(): void {
    // One that was closed this very moment is gone first: its dialog would not see that it is wanted again.
    this.application.tick();
    this.touched.set(false);
    this.typed.set('');
    this.shown.set(true);
    // At once: what is typed from now on belongs to it.
    this.application.tick();
    void this.shelf.load();
  }

  protected move(by: 1 | -1): void {
    const many = this.found().length;
    if (many === 0) return;
    this.touched.set(true);
    this.at.update((at) => (at + by + many) % many);
    this.list()?.nativeElement.children[this.at()]?.scrollIntoView({ block: 'nearest' });
  }

  protected take(entry: Entry | undefined): void {
    if (!entry) return;
    this.shown.set(false);
    entry.run();
  }
}
