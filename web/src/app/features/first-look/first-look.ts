import { CAUTION, HAND_LABELS, partTitle } from '@joined-hands/core/words';
import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { midiOf, nameOf } from '@joined-hands/core/pitch';
import { firstLook, type WarmUp } from '@joined-hands/core/sheet';
import type { SongFacts } from '@joined-hands/core/song';
import { Player } from '../../platform/audio/player';
import { MissingSong } from '../../ui/missing-song';
import { openSong } from '../../platform/state/open-song';
import { DeskStore } from '../../platform/state/desk.store';
import { LittleKeyboard, octavesOf } from '../../ui/little-keyboard';
import { Signs } from '../../ui/signs';
import { SongFactsForm } from '../../ui/song-facts';
import { PlayAlong } from './play-along';
import { What } from '../../ui/words/what';
import { Words } from '../../platform/words';

/** Minutes that one sitting lasts before a rest is due. */
const SITTING = 20;

/** The first look: what a pianist wants to know of a song before the first note, on one page. */
@Component({
  selector: 'jh-look',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MissingSong, LittleKeyboard, PlayAlong, RouterLink, Signs, SongFactsForm, What],
  templateUrl: './first-look.html',
  styleUrl: './first-look.less',
})
export class FirstLookScreen {
  readonly id = input.required<string>();
  protected readonly desk = inject(DeskStore);
  private readonly player = inject(Player);
  protected readonly words = inject(Words);

  protected readonly brief = computed(() => {
    const arrangement = this.desk.arrangement();
    const document = this.desk.document();
    return arrangement && document ? { ...firstLook(arrangement, document.hands), song: document.song } : null;
  });
  protected readonly range = computed(() => octavesOf(this.brief()?.shapes.flatMap((s) => s.pitches) ?? []));
  protected readonly different = computed(() => new Set(this.brief()?.form.map((f) => f.label)).size);

  /** How long the first work takes, in sittings with a rest between them. */
  protected readonly time = computed(() => {
    const minutes = this.brief()?.minutes ?? 0;
    const sittings = Math.max(1, Math.round(minutes / SITTING));
    return `about ${minutes} minutes${sittings > 1 ? $localize`, ${sittings} sittings of ${SITTING} with a rest between them` : ''}`;
  });

  protected readonly caution = CAUTION;
  protected readonly partTitle = partTitle;
  /** From where to where the melody runs. */
  protected readonly compass = computed(() => {
    const range = this.brief()?.range;
    if (!range) return null;
    const say = this.words.say();
    const width = say.interval(midiOf(range.high) - midiOf(range.low));
    return $localize`From ${say.pianoKey(range.low)} to ${say.pianoKey(range.high)}, ${width}.`;
  });
  protected readonly reasons = computed(() => this.brief()?.hardest?.reasons.map(this.words.say().fact).join('; '));

  constructor() {
    openSong(this.id);
  }

  protected change(change: Partial<SongFacts>): void {
    void this.desk.edit({ code: 'edit.facts', change });
  }

  protected letter(pitch: string): string {
    return this.words.say().note(nameOf(pitch));
  }

  protected hear(pitches: readonly string[]): void {
    void this.player.strike(pitches.map(midiOf));
  }

  protected places(bars: readonly number[]): string {
    return this.words.say().fact({ code: 'screen.bar-list', bars });
  }

  protected warmUpLabel({ hand, notes }: WarmUp): string {
    return `${HAND_LABELS[hand]}: ${notes.map((n) => $localize`${this.letter(n.pitch)} with ${n.finger}`).join(', ')}`;
  }
}
