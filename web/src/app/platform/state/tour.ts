import { ApplicationRef, Injectable, computed, inject } from '@angular/core';
import { toObservable } from '@angular/core/rxjs-interop';
import { Router } from '@angular/router';
import type { Driver } from 'driver.js';
import { filter, firstValueFrom } from 'rxjs';
import { Actions } from './actions';
import { DeskStore } from './desk.store';
import { SettingsStore } from './settings.store';
import { ShelfStore } from './shelf.store';
import { TOUR_STOPS, TourStops, type TourStop } from './tour-stops';

/** What is said at each stop. */
const WORDS: Readonly<Record<TourStop, string>> = {
  parts: $localize`The song is cut into short numbered parts where its phrases end. You learn a repeated part only once.`,
  strip: $localize`One part at a time: round stones for the right hand, square blocks for the left. Where both strike together, a clasp closes around the count.`,
  hands: $localize`Work in this order: right hand, left hand, both together, then fills once the hands play well together.`,
  reasons: $localize`Press a chord or a note to see why it is played this way, and what else would work. Listen to another, keep it, or undo.`,
  sound: $localize`Space starts and stops. Begin slowly: the tempo is a percentage of the song’s own.`,
  places: $localize`Rehearse plans your minutes and listens while you play. Sheet prints the page for the stand. ? lists every shortcut.`,
};

/** A look round the desk with a demo song, for who is new; it can be left at any time, and asked for again. */
@Injectable({ providedIn: 'root' })
export class Tour {
  private readonly settings = inject(SettingsStore);
  private readonly shelf = inject(ShelfStore);
  private readonly router = inject(Router);
  private readonly desk = inject(DeskStore);
  private readonly stops = inject(TourStops);
  private readonly app = inject(ApplicationRef);
  private readonly arranged = toObservable(this.desk.arrangement).pipe(filter((a) => a !== null));
  private guide: Driver | null = null;
  readonly offered = computed(() => this.settings.newcomer());

  constructor() {
    inject(Actions).register(() => [{ name: $localize`Take the tour`, run: () => void this.begin() }]);
    // It is about the desk: who goes elsewhere has seen enough.
    this.router.events.subscribe(() => this.guide && !this.router.url.startsWith('/desk/') && this.guide.destroy());
  }

  /** Opens a song of the shelf and begins; a demo song before others, since nothing of one's own can be spoiled there. */
  async begin(): Promise<void> {
    const [{ driver }] = await Promise.all([import('driver.js'), this.shelf.load()]);
    const songs = this.shelf.songs();
    const song = songs.find((s) => s.demo) ?? songs.at(0);
    if (!song) return;
    await this.router.navigate(['/desk', song.id]);
    this.desk.setView('joined');
    await firstValueFrom(this.arranged);
    await this.app.whenStable();
    const steps = TOUR_STOPS.flatMap((stop) => {
      const element = this.stops.element(stop);
      return element ? [{ element, popover: { description: WORDS[stop] } }] : [];
    });
    this.guide?.destroy();
    this.guide = driver({
      steps,
      animate: false,
      overlayOpacity: 0.22,
      stageRadius: 14,
      stagePadding: 6,
      showProgress: true,
      showButtons: ['next', 'close'],
      progressText: $localize`{{current}} of {{total}}`,
      nextBtnText: $localize`Next`,
      doneBtnText: $localize`Begin`,
      onPopoverRender: ({ wrapper, closeButton, nextButton, footerButtons }) => {
        wrapper.removeAttribute('aria-labelledby');
        wrapper.setAttribute('aria-label', $localize`Take the tour`);
        closeButton.textContent = $localize`Cancel`;
        closeButton.removeAttribute('aria-label');
        footerButtons.prepend(closeButton);
        closeButton.classList.add('btn', 'small', 'bare');
        nextButton.classList.add('btn', 'small', 'main');
      },
      onDestroyed: () => this.end(),
    });
    this.guide.drive();
  }

  end(): void {
    this.guide = null;
    this.settings.set({ newcomer: false });
  }
}
