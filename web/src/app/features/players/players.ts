import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { RouterLink } from '@angular/router';
import { LEVEL_LABELS, PROFILE_LABELS } from '@joined-hands/core/words';
import { handsOf, type Hands } from '@joined-hands/core/song';
import { NAMINGS } from '../../platform/namings';
import { Actions } from '../../platform/state/actions';
import { DeskStore } from '../../platform/state/desk.store';
import { wishesIn, type PlayerRecord } from '../../platform/state/player';
import { nameOfPlayer, PlayersStore } from '../../platform/state/players.store';
import { SettingsStore } from '../../platform/state/settings.store';
import { Toasts } from '../../platform/toasts';
import { isMeasured } from '../../ui/hand-options';
import { Fold } from '../../ui/fold';
import { MissingSong } from '../../ui/missing-song';
import { Modal } from '../../ui/modal';
import { PlayerForm, type PlayerFacts } from './player-form';
import { SongForEach } from './song-for-each';

const NEW = 'new';

/** Everyone who plays on this device, and what a song becomes for each of them. */
@Component({
  selector: 'jh-players',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Fold, MissingSong, Modal, PlayerForm, RouterLink, SongForEach],
  templateUrl: './players.html',
  styleUrl: './players.less',
})
export class Players {
  /** The song that is looked at, where the address names one. */
  readonly id = input<string>();
  protected readonly desk = inject(DeskStore);
  protected readonly players = inject(PlayersStore);
  private readonly settings = inject(SettingsStore);
  private readonly toasts = inject(Toasts);
  protected readonly nameOf = nameOfPlayer;
  /** Whose facts are being changed; "new" for one who is not there yet. */
  protected readonly changing = signal<string | null>(null);
  protected readonly facts = computed((): PlayerFacts => {
    const player = this.players.here().find((p) => p.id === this.changing());
    const wishes = wishesIn(this.settings.all());
    if (!player) return { name: '', hands: handsOf(), wishes };
    return { name: nameOfPlayer(player), hands: player.hands, wishes: this.isNow(player) ? wishes : (player.wishes ?? wishes) };
  });
  protected readonly title = computed(() => (this.changing() === NEW ? $localize`A new player` : this.facts().name));

  constructor() {
    effect(() => {
      const id = this.id();
      if (id) untracked(() => void this.desk.open(id));
    });
    inject(Actions).register(() => [{ name: $localize`Add a player`, keywords: $localize`pupil, child`, run: () => this.add() }]);
  }

  protected isNow(player: PlayerRecord): boolean {
    return player.id === this.players.playing();
  }

  /** Hands, keyboard and how notes are named, in a line. */
  protected aboutOf(player: PlayerRecord): string {
    const { noteNames } = this.isNow(player) ? this.settings.all() : (player.wishes ?? this.settings.all());
    return [...handWords(player.hands), NAMINGS.find((n) => n.id === noteNames)?.text ?? '']
      .filter(Boolean)
      .map(together)
      .join(' · ');
  }

  protected add(): void {
    this.changing.set(NEW);
  }

  protected keep({ name, hands, wishes }: PlayerFacts): void {
    const which = this.changing();
    if (which === null) return;
    const id = which === NEW ? this.players.add(name) : which;
    this.players.change(id, { name, hands, wishes });
    if (id === this.players.playing()) this.settings.set(wishes);
    this.changing.set(null);
  }

  protected remove(player: PlayerRecord): void {
    this.players.remove(player.id);
    this.toasts.say($localize`${nameOfPlayer(player)} is off the list. The log is kept.`, {
      label: $localize`Undo`,
      run: () => this.players.putBack(player.id),
    });
  }
}

/** Words that stay on one line. */
const together = (words: string): string => words.replaceAll(' ', '\u00a0').replaceAll('-', '\u2011');

/** Hands in a few words: "small hand", "61 keys", "first year", "plain triads at most". */
function handWords(hands: Hands): string[] {
  const { profile, keys, firstYear, most } = hands;
  return [
    isMeasured(hands) ? $localize`measured hand` : PROFILE_LABELS[profile].hand,
    $localize`${keys} keys`,
    ...(firstYear ? [$localize`first year`] : []),
    ...(most === 'full' ? [] : [$localize`${LEVEL_LABELS[most]} at most`]),
  ];
}
