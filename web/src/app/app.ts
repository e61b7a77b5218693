import { ChangeDetectionStrategy, Component, ElementRef, computed, inject, signal, viewChild } from '@angular/core';
import { NavigationEnd, Router, RouterLink, RouterLinkActive, RouterOutlet } from '@angular/router';
import { keyName, meterName } from '@joined-hands/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { filter, map } from 'rxjs';
import { DeskStore } from './state/desk.store';
import { SettingsStore } from './state/settings.store';
import { Signs } from './widgets/signs';
import { Tabs } from './storage/tabs';
import { download, fileName } from './widgets/download';
import { ToastOutlet, Toasts } from './widgets/toasts';
import { Workers } from './workers/workers';
import { SwUpdate } from '@angular/service-worker';
import { isTyping } from './widgets/keys';

@Component({
  selector: 'jh-root',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterOutlet, RouterLink, RouterLinkActive, Signs, ToastOutlet],
  templateUrl: './app.html',
  styleUrl: './app.less',
  host: { '(document:keydown)': 'onKey($event)' },
})
export class App {
  protected readonly desk = inject(DeskStore);
  protected readonly settings = inject(SettingsStore);
  protected readonly tabs = inject(Tabs);
  private readonly workers = inject(Workers);
  private readonly toasts = inject(Toasts);
  protected readonly offline = signal(!navigator.onLine);
  private readonly router = inject(Router);
  private readonly help = viewChild.required<ElementRef<HTMLDialogElement>>('help');
  private readonly url = toSignal(
    this.router.events.pipe(
      filter((e) => e instanceof NavigationEnd),
      map((e) => e.urlAfterRedirects),
    ),
    { initialValue: this.router.url },
  );

  /** The song is named in the header on the screens that work on it. */
  protected readonly song = computed(() =>
    /^\/(look|desk|key|plan|figures|versions|sheet|hands)\//.test(this.url()) ? this.desk.arrangement()?.song : null,
  );
  protected readonly about = computed(() => {
    const song = this.song();
    return song ? { key: keyName(song.key), meter: meterName(song.meters[0]), tempo: song.tempo } : null;
  });

  protected readonly shortcuts: readonly (readonly [string, string])[] = [
    ['Space', 'start and stop'],
    ['← →', 'step through the joins'],
    ['↑ ↓', 'go to the part before or after'],
    ['1 2 3 4', 'right hand, left hand, joined, with fills'],
    ['Ctrl + Z', 'take the last change back'],
    ['Ctrl + Shift + Z', 'do it again'],
    ['Enter', 'choose the note or chord that has the focus'],
    ['?', 'this list'],
  ];

  constructor() {
    addEventListener('online', () => this.offline.set(false));
    addEventListener('offline', () => this.offline.set(true));
    // A newer program waits until it is asked for: work is never interrupted.
    inject(SwUpdate).versionUpdates.subscribe((event) => {
      if (event.type !== 'VERSION_READY') return;
      this.toasts.say('A newer Joined Hands is ready.', { label: 'Use it now', run: () => location.reload() });
    });
  }

  /** The open song as a project file, for when the browser does not keep it. */
  protected async rescue(): Promise<void> {
    const doc = this.desk.document();
    if (!doc) return;
    download(`${fileName(doc.song.title)}.json`, await this.workers.arranger.write('project', doc), 'application/json');
  }

  protected toggleTheme(): void {
    this.settings.set({ theme: this.settings.theme() === 'day' ? 'evening' : 'day' });
  }

  protected showHelp(): void {
    this.help().nativeElement.showModal();
  }

  protected onKey(event: KeyboardEvent): void {
    if (isTyping(event)) return;
    if (event.key === '?') this.showHelp();
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z' && this.song()) {
      event.preventDefault();
      void (event.shiftKey ? this.desk.redo() : this.desk.undo());
    }
  }
}
