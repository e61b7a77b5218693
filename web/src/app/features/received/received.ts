import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { ActivatedRoute, Router } from '@angular/router';
import type { Arrangement } from '@joined-hands/core/arrange';
import type { Parcel, TaskItem } from '@joined-hands/core/passing';
import { latestWins } from '../../platform/latest';
import { nameOfPlayer, PlayersStore } from '../../platform/state/players.store';
import { PracticeStore } from '../../platform/state/practice.store';
import { ShelfStore } from '../../platform/state/shelf.store';
import { STORAGE_SENTENCES, storageTrouble } from '../../platform/storage/library';
import { Tasks } from '../../platform/tasks';
import { Words } from '../../platform/words';
import { TROUBLE, Workers } from '../../platform/workers/workers';
import { JoinStrip } from '../../ui/join-strip/join-strip';
import { Signs } from '../../ui/signs';
import { Dropdown } from '../../ui/dropdown';

/** Parts that are shown of a song before it stands on the shelf. */
const SHOWN = 2;

/** What a link holds, before anything of it is kept. */
@Component({
  selector: 'jh-received',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Dropdown, JoinStrip, Signs],
  templateUrl: './received.html',
  styleUrl: './received.less',
})
export class Received {
  private readonly workers = inject(Workers);
  private readonly shelf = inject(ShelfStore);
  private readonly practice = inject(PracticeStore);
  protected readonly players = inject(PlayersStore);
  private readonly tasks = inject(Tasks);
  private readonly router = inject(Router);
  protected readonly words = inject(Words);
  protected readonly parcel = signal<Parcel | null>(null);
  protected readonly arrangement = signal<Arrangement | null>(null);
  /** Why it cannot be opened, or kept. */
  protected readonly fault = signal<string | null>(null);
  protected readonly added = signal(false);
  private readonly begin = latestWins();

  protected readonly parts = computed(() => this.arrangement()?.parts.slice(0, SHOWN) ?? []);
  protected readonly about = computed(() => {
    const arrangement = this.arrangement();
    const say = this.words.say();
    return arrangement
      ? say.fact({
          code: 'screen.song',
          key: arrangement.song.key,
          parts: arrangement.parts.length,
          tempo: arrangement.song.tempo,
        })
      : '';
  });
  protected readonly practised = computed(() => {
    const parcel = this.parcel();
    return parcel?.kind === 'log' ? this.words.say().fact({ code: 'screen.passes', passes: parcel.passes.length }) : '';
  });

  /** Whose log it becomes: of whoever has the name that it came with, or plays now, until another is chosen. */
  private readonly chosen = signal<string | null>(null);
  protected readonly whose = computed(() => {
    const parcel = this.parcel();
    const from = parcel?.kind === 'log' ? parcel.from.toLocaleLowerCase() : '';
    const named = this.players.here().find((p) => from !== '' && p.name.toLocaleLowerCase() === from);
    return this.chosen() ?? named?.id ?? this.players.playing();
  });
  protected readonly everyone = computed(() => this.players.here().map((p) => ({ id: p.id, text: nameOfPlayer(p) })));

  protected readonly whoseName = computed(() => this.everyone().find((p) => p.id === this.whose())?.text ?? '');

  protected choose(player: string): void {
    this.chosen.set(player);
  }

  constructor() {
    inject(ActivatedRoute)
      .fragment.pipe(takeUntilDestroyed())
      .subscribe((letters) => void this.open(letters ?? ''));
  }

  private async open(letters: string): Promise<void> {
    const isLatest = this.begin();
    this.parcel.set(null);
    this.chosen.set(null);
    this.fault.set(null);
    const read = await this.workers.reader.call('readParcel', letters);
    if (!isLatest()) return;
    if (!read.ok) this.fault.set($localize`This link could not be read: ${TROUBLE[read.trouble]}. Ask for the file instead.`);
    else if (!read.value.ok) this.fault.set(this.words.say().fact(read.value.fault));
    else {
      const { parcel } = read.value;
      if (parcel.kind === 'song') {
        const arranged = await this.workers.arranger.call('arrange', parcel.document);
        if (!isLatest()) return;
        if (!arranged.ok) {
          this.fault.set(
            $localize`The song in this link could not be arranged: ${TROUBLE[arranged.trouble]}. Ask for the file instead.`,
          );
          return;
        }
        this.arrangement.set(arranged.value);
      }
      this.parcel.set(parcel);
    }
  }

  protected itemWords(item: TaskItem): string {
    return this.words.say().fact({ code: 'screen.asked', ...item });
  }

  /** Puts the song on the shelf, with its task. */
  protected async keep(): Promise<void> {
    const parcel = this.parcel();
    if (parcel?.kind !== 'song') return;
    try {
      await this.shelf.load();
      const id = await this.shelf.add(parcel.document);
      if (parcel.task) await this.tasks.keep(id, parcel.task);
      await this.router.navigate([parcel.task ? '/rehearse' : '/desk', id]);
    } catch (error) {
      this.fault.set(STORAGE_SENTENCES[storageTrouble(error)]);
    }
  }

  /** Adds what was practised to the log here; a pass that is there already is written over by itself. */
  protected async merge(): Promise<void> {
    const parcel = this.parcel();
    if (parcel?.kind !== 'log') return;
    await this.practice.load();
    await this.shelf.load();
    const own = this.shelf.songs().filter((s) => s.card?.title === parcel.title);
    const song = own.length === 1 ? own[0].id : null;
    const passes = parcel.passes.map((p) => ({ ...p, song: song ?? p.song }));
    await this.practice.keep(passes, this.whose());
    this.added.set(true);
  }

  protected leave(): Promise<boolean> {
    return this.router.navigate(['/shelf']);
  }
}
