import { ChangeDetectionStrategy, Component, OnDestroy, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { compareArrangements, type Arrangement, type BarPair, type ComparedFigures } from '@joined-hands/core/arrange';
import { documentOfVersion, type Document } from '@joined-hands/core/song';
import { asArranged, scheduleStretch } from '../../platform/audio/schedule';
import { Player } from '../../platform/audio/player';
import { MissingSong } from '../../ui/missing-song';
import { Actions } from '../../platform/state/actions';
import { DeskStore } from '../../platform/state/desk.store';
import { openSong } from '../../platform/state/open-song';
import { SettingsStore } from '../../platform/state/settings.store';
import { Library } from '../../platform/storage/library';
import { Fold } from '../../ui/fold';
import { Dropdown } from '../../ui/dropdown';
import { Choice } from '../../ui/choice';
import { Signs } from '../../ui/signs';
import { Toasts } from '../../platform/toasts';
import { type Trouble } from '../../platform/workers/worker-client';
import { TROUBLE, Workers } from '../../platform/workers/workers';
import type { Term } from '../../ui/words/glossary';
import { Words } from '../../platform/words';
import { What } from '../../ui/words/what';
import { latestWins } from '../../platform/latest';

/** The arrangement as it stands, among the kept ones. */
const NOW = '';

interface Side {
  readonly name: string;
  readonly document: Document;
  readonly arrangement: Arrangement;
}

/** How the song stood at an earlier time. */
interface Earlier {
  readonly at: number;
  readonly document: Document;
}

/** Versions that were kept of an arrangement, and any two of them side by side: seen, measured and heard. */
@Component({
  selector: 'jh-versions',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MissingSong, Choice, Fold, Dropdown, Signs, What],
  templateUrl: './versions.html',
  styleUrl: './versions.less',
})
export class VersionsScreen implements OnDestroy {
  protected readonly words = inject(Words);
  readonly id = input.required<string>();
  protected readonly desk = inject(DeskStore);
  /** What stands in place of notes where there are none. */
  protected readonly silences = { left: $localize`rests`, right: $localize`melody alone` };
  protected readonly player = inject(Player);
  private readonly settings = inject(SettingsStore);
  private readonly workers = inject(Workers);
  private readonly toasts = inject(Toasts);
  private readonly library = inject(Library);
  /** How the song stood at earlier times, kept by itself. */
  protected readonly snapshots = signal<readonly Earlier[]>([]);
  protected readonly versions = computed(() => this.desk.document()?.versions ?? []);
  protected readonly names = computed(() => [
    { id: NOW, text: $localize`now` },
    ...this.versions().map((v) => ({ id: v.name, text: v.name })),
  ]);
  private readonly wanted = signal<{ a: string; b: string } | null>(null);
  /** The names of the two sides: the newest kept one beside what stands now, until others are chosen. */
  protected readonly pair = computed(() => {
    const wanted = this.wanted();
    const newest = this.versions().at(-1)?.name ?? NOW;
    const known = (name: string | undefined, otherwise: string) =>
      name !== undefined && this.names().some((n) => n.id === name) ? name : otherwise;
    return { a: known(wanted?.a, newest), b: known(wanted?.b, NOW) };
  });
  private readonly sides = signal<{ readonly a: Side; readonly b: Side } | null>(null);
  protected readonly comparison = computed(() => {
    const sides = this.sides();
    return sides ? compareArrangements(sides.a, sides.b) : null;
  });
  protected readonly onlyDifferent = signal(true);
  protected readonly shown = computed(() => {
    const bars = this.comparison()?.bars ?? [];
    return this.onlyDifferent() ? bars.filter((b) => b.differs.length > 0) : bars;
  });
  protected readonly summary = computed(() => {
    const bars = this.comparison()?.bars;
    if (!bars) return '';
    const changed = bars.filter((b) => b.differs.length > 0).length;
    if (changed === 0) return $localize`The two versions are the same in every bar.`;
    return $localize`${changed} of ${bars.length} bars differ.`;
  });
  protected readonly figures = computed(() => {
    const c = this.comparison();
    return c ? FIGURES.map(({ words, term, of }) => ({ words, term, a: of(c.a), b: of(c.b) })) : [];
  });
  protected readonly shows = [
    { id: 'differing' as const, text: $localize`Only differences` },
    { id: 'all' as const, text: $localize`All bars` },
  ];
  /** Which side is heard. */
  protected readonly heard = signal<'a' | 'b'>('a');
  protected readonly ears = computed(() => [
    { id: 'a' as const, text: `A: ${this.nameOf(this.pair().a)}` },
    { id: 'b' as const, text: `B: ${this.nameOf(this.pair().b)}` },
  ]);
  private readonly begin = latestWins();

  constructor() {
    openSong(this.id);
    inject(Actions).register(() => [
      { name: this.player.state() === 'silent' ? $localize`Start` : $localize`Stop`, keys: [' '], run: () => this.toggle() },
      {
        name: $localize`Hear the other: ${this.heard() === 'a' ? 'B' : 'A'}`,
        keys: ['h'],
        run: () => this.listen(this.heard() === 'a' ? 'b' : 'a'),
      },
    ]);
    effect(() => {
      const id = this.id();
      void this.earlier(id);
    });
    effect(() => {
      const { a, b } = this.pair();
      const document = this.desk.document();
      if (document) untracked(() => void this.lay(document, a, b));
    });
  }

  ngOnDestroy(): void {
    this.player.stop();
  }

  /** Looks how the song stood before; what cannot be read of it is left out. */
  private async earlier(id: string): Promise<void> {
    const found = await this.library.snapshots(id).catch(() => []);
    const checked = await this.workers.checker.call(
      'check',
      found.map((s) => s.document),
    );
    if (!checked.ok || id !== this.id()) return;
    this.snapshots.set(found.flatMap(({ at }, i) => (checked.value[i] ? [{ at, document: checked.value[i] }] : [])));
  }

  private nameOf(name: string): string {
    return name === NOW ? 'now' : name;
  }

  private async lay(document: Document, a: string, b: string): Promise<void> {
    const isLatest = this.begin();
    const sideOf = async (name: string): Promise<Side | Trouble> => {
      const kept = document.versions.find((v) => v.name === name);
      const whole = kept ? documentOfVersion(kept) : document;
      const arranged = await this.workers.arranger.call('arrange', whole);
      return arranged.ok ? { name, document: whole, arrangement: arranged.value } : arranged.trouble;
    };
    const [one, other] = [await sideOf(a), await sideOf(b)];
    if (!isLatest()) return;
    for (const side of [one, other])
      if (typeof side === 'string') {
        this.toasts.say($localize`The versions could not be compared: ${TROUBLE[side]}.`);
        return;
      }
    if (typeof one !== 'string' && typeof other !== 'string') this.sides.set({ a: one, b: other });
  }

  protected choose(side: 'a' | 'b', name: string): void {
    this.player.stop();
    this.wanted.set({ ...this.pair(), [side]: name });
  }

  protected keep(field: HTMLInputElement): void {
    const name = field.value.trim() || $localize`Version ${this.versions().length + 1}`;
    field.value = '';
    void this.desk.edit({ code: 'edit.keep-version', name, kept: new Date().toISOString() });
  }

  protected take(name: string): void {
    void this.desk.edit({ code: 'edit.take-version', name });
  }

  protected drop(name: string): void {
    void this.desk.edit({ code: 'edit.drop-version', name });
  }

  /** Takes up how the song stood; what stands now can be taken back by undo, and kept versions stay. */
  protected goBack({ document, at }: Earlier): void {
    void this.desk.edit({ code: 'edit.go-back', at, document });
  }

  protected day(kept: string | number): string {
    return new Date(kept).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' });
  }

  /** Starts or stops, from a bar where one is named. */
  protected toggle(bar: BarPair | null = null): void {
    if (this.player.state() !== 'silent') return this.player.stop();
    this.play(bar?.start ?? 0);
  }

  /** Turns the ear to the other side, in time: the music goes on where it is. */
  protected listen(side: 'a' | 'b'): void {
    this.heard.set(side);
    const at = this.player.position();
    if (this.player.state() === 'playing') this.play(at ?? 0);
  }

  private play(from: number): void {
    const arrangement = this.sides()?.[this.heard()].arrangement;
    if (!arrangement) return;
    const options = asArranged(arrangement, this.settings.tempoPercent());
    void this.player.play(scheduleStretch(arrangement, from, arrangement.song.length, options));
  }

  /** The bar that sounds now. */
  protected readonly sounding = computed(() => {
    const at = this.player.position();
    return at === null ? null : (this.comparison()?.bars.findLast((b) => b.start <= at)?.number ?? null);
  });
}

const FIGURES: readonly { readonly words: string; readonly term: Term | null; readonly of: (f: ComparedFigures) => string }[] = [
  { words: $localize`Difficulty`, term: 'difficulty', of: (f) => `${f.difficulty}` },
  { words: $localize`Hardest part`, term: null, of: (f) => (f.hardestPart === null ? '–' : `${f.hardestPart}`) },
  { words: $localize`Left-hand travel, in half steps`, term: 'motion', of: (f) => `${f.motion}` },
  { words: $localize`Notes to play`, term: null, of: (f) => `${f.notes}` },
  { words: $localize`Jumps`, term: 'jumps', of: (f) => `${f.jumps}` },
  { words: $localize`Problems to fix`, term: 'troubles', of: (f) => `${f.troubles}` },
];
