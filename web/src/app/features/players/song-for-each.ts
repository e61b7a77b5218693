import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { LEVELS, type Document, type Hands } from '@joined-hands/core/song';
import { LEVEL_LABELS } from '@joined-hands/core/words';
import { latestWins } from '../../platform/latest';
import { DeskStore } from '../../platform/state/desk.store';
import { handsIn, type PlayerRecord } from '../../platform/state/player';
import { nameOfPlayer, PlayersStore } from '../../platform/state/players.store';
import { Words } from '../../platform/words';
import type { AdaptedSong } from '../../platform/workers/arranger.worker';
import { TROUBLE, Workers } from '../../platform/workers/workers';
import { Dropdown } from '../../ui/dropdown';
import { Signs } from '../../ui/signs';

/** A song as each player plays it: how full, how hard, and what had to change as against the first player. */
@Component({
  selector: 'jh-song-for-each',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Dropdown, RouterLink, Signs],
  templateUrl: './song-for-each.html',
  styleUrl: './song-for-each.less',
})
export class SongForEach {
  readonly id = input.required<string>();
  protected readonly desk = inject(DeskStore);
  protected readonly players = inject(PlayersStore);
  private readonly workers = inject(Workers);
  private readonly router = inject(Router);
  protected readonly words = inject(Words);
  protected readonly nameOf = nameOfPlayer;
  protected readonly levels = [...LEVELS].reverse().map((id) => ({ id, text: LEVEL_LABELS[id] }));
  protected readonly trouble = signal<string | null>(null);
  private readonly songs = signal<readonly AdaptedSong[]>([]);
  private readonly begin = latestWins();

  private readonly hands = computed(() => this.players.here().map((p) => handsIn(p, this.id())), {
    equal: (a, b) => JSON.stringify(a) === JSON.stringify(b),
  });
  /** Everyone with their version, as far as it is there. */
  protected readonly rows = computed(() =>
    this.players.here().map((player, i) => ({
      player,
      most: handsIn(player, this.id()).most,
      song: this.songs()[i],
      first: i === 0,
    })),
  );

  constructor() {
    effect(() => {
      const [document, hands] = [this.desk.document(), this.hands()];
      if (document && this.desk.id() === this.id()) untracked(() => void this.adapt(document, hands));
    });
  }

  private async adapt(document: Document, hands: readonly Hands[]): Promise<void> {
    const isLatest = this.begin();
    const made = await this.workers.arranger.call('adapted', document, hands);
    if (!isLatest()) return;
    this.trouble.set(made.ok ? null : $localize`The versions could not be compared: ${TROUBLE[made.trouble]}.`);
    if (made.ok) this.songs.set(made.value);
  }

  /** Gives a player a fuller or simpler left hand in this song alone. */
  protected setMost(player: PlayerRecord, most: Hands['most']): void {
    this.players.keepHands(this.id(), { ...handsIn(player, this.id()), most }, player);
  }

  /** The song on the desk as this player plays it. */
  protected look(player: PlayerRecord): void {
    this.players.playNow(player.id);
    void this.router.navigate(['/desk', this.id()]);
  }
}
