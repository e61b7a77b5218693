import { ErrorHandler, Injectable, Injector, inject } from '@angular/core';
import { Router, type NavigationError } from '@angular/router';
import { downloadProject } from '../download';
import { Toasts } from '../toasts';
import { DeskStore } from './desk.store';

/** What nobody caught is said, with a way to keep the song: the page may go on, but it is not to be trusted. */
@Injectable()
export class Uncaught implements ErrorHandler {
  private readonly injector = inject(Injector);

  handleError(error: unknown): void {
    console.error(error);
    const song = this.injector.get(DeskStore).document();
    const save = song && {
      label: $localize`Save your song`,
      run: () => downloadProject(song.song.title, song),
    };
    this.injector
      .get(Toasts)
      .say(
        $localize`Something went wrong here. ${song ? $localize`Save your song as a file, then reload the page.` : $localize`Reload the page and try again.`}`,
        save,
      );
  }
}

/** A screen whose program cannot be loaded says so where one is, and can be tried again. */
export function sayNotLoaded(error: NavigationError): void {
  const router = inject(Router);
  const again = { label: $localize`Try again`, run: () => void router.navigateByUrl(error.url) };
  inject(Toasts).say($localize`This screen could not be loaded. Check the connection, then try again.`, again);
}
