import { ChangeDetectionStrategy, Component, ElementRef, computed, inject, signal, viewChild } from '@angular/core';
import { NavigationEnd, Router, RouterLink, RouterLinkActive, RouterOutlet } from '@angular/router';
import { meterName } from '@joined-hands/core/time';
import { CdkVirtualScrollableElement } from '@angular/cdk/scrolling';
import { toSignal } from '@angular/core/rxjs-interop';
import { filter, map, skip } from 'rxjs';
import { SCREENS } from './screens';
import { Finder } from './finder/finder';
import { Actions, type Action } from '../platform/state/actions';
import { DeskStore } from '../platform/state/desk.store';
import { Incoming } from '../platform/state/incoming';
import { nameOfPlayer, PlayersStore } from '../platform/state/players.store';
import { PracticeStore } from '../platform/state/practice.store';
import { SettingsStore } from '../platform/state/settings.store';
import { Signs } from '../ui/signs';
import { Tour } from '../platform/state/tour';
import { TourStopMark } from '../platform/state/tour-stops';
import { Tabs } from '../platform/storage/tabs';
import { downloadProject } from '../platform/download';
import { Toasts } from '../platform/toasts';
import { ToastOutlet } from '../ui/toast-outlet';
import { SwUpdate } from '@angular/service-worker';
import { letGoOfButton } from '../platform/keys';
import { Help } from './help';
import { NAMINGS } from '../platform/namings';
import { Modal } from '../ui/modal';
import { Icon } from '../ui/icon';
import { More, type MenuItem } from '../ui/more';
import type { ScreenDescriptor } from '../platform/screen';
import { Viewport } from '../platform/viewport';
import { Words } from '../platform/words';

/** The screens that work on a song when its address names one. */
const OF_SONG: ReadonlySet<string> = new Set(SCREENS.filter((s) => s.of !== 'none').map((s) => s.path));

@Component({
  selector: 'jh-root',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    Icon,
    CdkVirtualScrollableElement,
    Finder,
    More,
    TourStopMark,
    RouterOutlet,
    RouterLink,
    RouterLinkActive,
    Signs,
    ToastOutlet,
    Help,
    Modal,
  ],
  templateUrl: './app.html',
  styleUrl: './app.less',
  host: {
    '(document:keydown)': 'actions.press($event)',
    '(document:click)': 'letGo($event)',
    '(window:beforeunload)': 'askFirst($event)',
    '(document:dragover)': 'holdFile($event)',
    '(document:drop)': 'takeDropped($event)',
  },
})
export class App {
  private readonly words = inject(Words);
  protected readonly desk = inject(DeskStore);
  private readonly practice = inject(PracticeStore);
  protected readonly settings = inject(SettingsStore);
  protected readonly players = inject(PlayersStore);
  protected readonly tabs = inject(Tabs);
  private readonly toasts = inject(Toasts);
  private readonly incoming = inject(Incoming);
  protected readonly offline = signal(!navigator.onLine);
  private readonly router = inject(Router);
  protected readonly actions = inject(Actions);
  protected readonly letGo = letGoOfButton;
  protected readonly viewport = inject(Viewport);
  /** The links of the header: the way through an open song in the order of the work, or the places of the application. */
  protected readonly links = computed(() =>
    SCREENS.filter((s) => s.place === (this.song() ? 'song' : 'application')).map((s) => this.linkTo(s)),
  );
  /** Where else one may go from here, for the menu. */
  private readonly others = computed(() =>
    SCREENS.filter((s) => s.place === 'application' || (this.song() && s.place === 'beside' && s.of === 'song')).map((s) =>
      this.linkTo(s),
    ),
  );
  /** The name of the screen that is shown. */
  protected readonly here = computed(() => SCREENS.find((s) => s.path === this.address()[0])?.name ?? $localize`Menu`);
  /** What the menu of the header holds: on a phone, all of it. */
  protected readonly menu = computed((): MenuItem[] => {
    const go = ({ name, to }: { name: string; to: readonly string[] }): MenuItem => ({
      name,
      run: () => void this.router.navigate(to),
      current: name === this.here(),
    });
    if (!this.viewport.isPhone()) return this.others().map(go);
    return [
      ...(this.song() ? this.links().map(go) : []),
      ...this.others().map(go),
      ...this.seats().map((seat) => ({ ...seat, name: $localize`${seat.name} plays now` })),
      { name: this.themeName(), run: () => this.toggleTheme() },
      { name: $localize`Shortcuts and about`, run: () => this.showHelp() },
    ];
  });
  /** The shelf shows all players itself. */
  protected readonly onShelf = computed(() => this.address()[0] === 'shelf');
  /** Whoever plays now, on the button of their menu. */
  protected readonly playing = computed(() => nameOfPlayer(this.players.current()));
  /** Everyone who could play instead; empty where there is only one. */
  protected readonly seats = computed((): MenuItem[] =>
    this.players.several()
      ? this.players.here().map((p) => ({
          name: nameOfPlayer(p),
          run: () => this.players.playNow(p.id),
          current: p.id === this.players.playing(),
        }))
      : [],
  );
  private readonly finder = viewChild.required(Finder);
  private readonly main = viewChild.required<ElementRef<HTMLElement>>('main');
  private readonly ended = this.router.events.pipe(filter((e) => e instanceof NavigationEnd));
  private readonly url = toSignal(this.ended.pipe(map((e) => e.urlAfterRedirects)), { initialValue: this.router.url });

  /** The parts of the address: the screen, then the song where one is named. */
  private readonly address = computed(() => this.url().split(/[?#]/)[0].split('/').slice(1));

  /** The song is named in the header on the screens that work on it. */
  protected readonly song = computed(() => {
    const [screen, id] = this.address();
    return id && OF_SONG.has(screen) ? (this.desk.arrangement()?.song ?? null) : null;
  });
  protected readonly about = computed(() => {
    const song = this.song();
    return song ? { key: this.words.say().key(song.key), meter: meterName(song.meters[0]), tempo: song.tempo } : null;
  });

  private linkTo({ path, name, of }: ScreenDescriptor): { readonly name: string; readonly to: string[] } {
    const id = this.desk.id();
    return { name, to: of === 'none' || !id || !this.song() ? ['/' + path] : ['/' + path, id] };
  }

  constructor() {
    // Made with the page, so that the finder knows the tour.
    inject(Tour);
    void this.players.load();
    this.actions.register(() => this.everywhere());
    addEventListener('online', () => this.offline.set(false));
    addEventListener('offline', () => this.offline.set(true));
    // What had the focus is gone with its screen: a reader goes on at the head of the new one.
    this.ended.pipe(skip(1)).subscribe(() => {
      if (document.activeElement === document.body) this.main().nativeElement.focus({ preventScroll: true });
    });
    // A newer program waits until it is asked for: work is never interrupted.
    inject(SwUpdate).versionUpdates.subscribe((event) => {
      if (event.type !== 'VERSION_READY') return;
      this.toasts.say($localize`A newer Joined Hands is ready.`, { label: $localize`Use it now`, run: () => location.reload() });
    });
  }

  /** The page is not left without a question while something would be lost with it. */
  protected askFirst(event: Event): void {
    if (this.desk.atRisk() || this.practice.atRisk()) event.preventDefault();
  }

  /** A file that is dropped anywhere goes to the intake: the browser would leave the page for it. */
  protected holdFile(event: DragEvent): void {
    if (event.dataTransfer?.types.includes($localize`Files`)) event.preventDefault();
  }

  protected takeDropped(event: DragEvent): void {
    const files = [...(event.dataTransfer?.files ?? [])];
    if (files.length === 0) return;
    event.preventDefault();
    this.incoming.files.set(files);
    void this.router.navigate(['/intake']);
  }

  /** The open song as a project file, for when the browser does not keep it. */
  protected rescue(): void {
    const doc = this.desk.document();
    if (doc) downloadProject(doc.song.title, doc);
  }

  protected readonly themeName = computed(() =>
    this.settings.theme() === 'day' ? $localize`Evening theme` : $localize`Day theme`,
  );

  protected toggleTheme(): void {
    this.settings.set({ theme: this.settings.theme() === 'day' ? 'evening' : 'day' });
  }

  /** The list of shortcuts follows what can be done only while it is open. */
  protected readonly helpShown = signal(false);

  protected showHelp(): void {
    this.helpShown.set(true);
  }

  /** What can be done on every screen. */
  private everywhere(): Action[] {
    const go = (name: string, keywords: string, ...path: string[]): Action => ({
      name: $localize`Go to: ${name}`,
      keywords,
      run: () => void this.router.navigate(path),
    });
    const id = this.desk.id();
    const ofSong: Action[] = this.song()
      ? [
          {
            name: $localize`Undo${labelled(this.words.fact(this.desk.undoable()))}`,
            keys: ['Ctrl+z'],
            run: () => void this.desk.undo(),
          },
          {
            name: $localize`Do again${labelled(this.words.fact(this.desk.redoable()))}`,
            keys: ['Ctrl+Shift+z', 'Ctrl+y'],
            run: () => void this.desk.redo(),
          },
        ]
      : [];
    return [
      ...ofSong,
      { name: $localize`Find an action or a song`, keys: ['Ctrl+k', '/'], run: () => this.finder().open() },
      { name: $localize`Shortcuts and about`, keys: ['?'], run: () => this.showHelp() },
      ...SCREENS.filter((s) => s.of !== 'song' || id).map(({ path, name, keywords, of }) =>
        go(name, keywords, '/' + path, ...(of !== 'none' && id ? [id] : [])),
      ),
      { name: this.themeName(), run: () => this.toggleTheme() },
      ...this.seats().map(({ name, run }) => ({
        name: $localize`${name} plays now`,
        keywords: $localize`player, pupil, change places`,
        run,
      })),
      ...NAMINGS.map(({ id, text }) => ({
        name: $localize`Note names: ${text}`,
        keywords: $localize`letters, do re mi, solfege, German, H`,
        run: () => this.settings.set({ noteNames: id }),
      })),
    ];
  }
}

const labelled = (label: string | null): string => (label ? `: ${label}` : '');
