import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { firstLook, handsOf, midiOf, nameOf, type WarmUp } from '@joined-hands/core';
import { Player } from '../audio/player';
import { MissingSong } from '../widgets/missing-song';
import { openSong } from '../state/open-song';
import { DeskStore } from '../state/desk.store';
import { LittleKeyboard, octavesOf } from '../widgets/little-keyboard';
import { Signs } from '../widgets/signs';
import { What } from '../words/what';

/** Minutes that one sitting lasts before a rest is due. */
const SITTING = 20;

/** The first look: what a pianist wants to know of a song before the first note, on one page. */
@Component({
  selector: 'jh-look',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MissingSong, LittleKeyboard, RouterLink, Signs, What],
  templateUrl: './look.html',
  styleUrl: './look.less',
})
export class Look {
  readonly id = input.required<string>();
  protected readonly desk = inject(DeskStore);
  private readonly player = inject(Player);

  protected readonly brief = computed(() => {
    const arrangement = this.desk.arrangement();
    return arrangement ? firstLook(arrangement, this.desk.document()?.hands ?? handsOf()) : null;
  });
  protected readonly range = computed(() => octavesOf(this.brief()?.shapes.flatMap((s) => s.pitches) ?? []));
  protected readonly different = computed(() => new Set(this.brief()?.form.map((f) => f.label)).size);

  /** How long the first work takes, in sittings with a rest between them. */
  protected readonly time = computed(() => {
    const minutes = this.brief()?.minutes ?? 0;
    const sittings = Math.max(1, Math.round(minutes / SITTING));
    return `about ${minutes} minutes${sittings > 1 ? `, ${sittings} sittings of ${SITTING} with a rest between them` : ''}`;
  });

  constructor() {
    openSong(this.id);
  }

  protected letter(pitch: string): string {
    return nameOf(pitch);
  }

  protected hear(pitches: readonly string[]): void {
    void this.player.strike(pitches.map(midiOf));
  }

  protected places(bars: readonly number[]): string {
    const shown = bars.slice(0, 8).join(', ');
    return `${bars.length === 1 ? 'bar' : 'bars'} ${shown}${bars.length > 8 ? ' …' : ''}`;
  }

  protected warmUpLabel({ hand, notes }: WarmUp): string {
    return `${hand} hand: ${notes.map((n) => `${nameOf(n.pitch)} with ${n.finger}`).join(', ')}`;
  }
}
