import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { nameOfPlayer, PlayersStore } from '../platform/state/players.store';
import { Choice } from './choice';

/** Who plays now, one press away; nothing where only one person plays here. */
@Component({
  selector: 'jh-now-playing',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choice],
  template: `@if (players.several()) {
    <jh-choice
      i18n-label
      label="Who plays now"
      [entries]="entries()"
      [value]="players.playing()"
      (chosen)="players.playNow($event)"
    />
  }`,
  styles: `
    jh-choice {
      flex-wrap: wrap;
      margin: 8px 0;
    }
  `,
})
export class NowPlaying {
  protected readonly players = inject(PlayersStore);
  protected readonly entries = computed(() => this.players.here().map((p) => ({ id: p.id, text: nameOfPlayer(p) })));
}
