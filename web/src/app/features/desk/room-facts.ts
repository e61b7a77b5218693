import { placeOf } from '@joined-hands/core/time';
import { FILL_LABELS } from '@joined-hands/core/words';
import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { FillSlot } from '@joined-hands/core/arrange';
import { type FillKind } from '@joined-hands/core/song';
import { asArranged, scheduleStretch } from '../../platform/audio/schedule';
import { DeskStore } from '../../platform/state/desk.store';
import { SettingsStore } from '../../platform/state/settings.store';
import { Offers, type Offer } from '../../ui/offers';
import { Signs } from '../../ui/signs';
import { Words } from '../../platform/words';

/** Loudness of a fill that is only tried. */
const TRIED = 0.6;

/** Room that the tune leaves: the fills that fit there, to be heard in their place, kept or refused. */
@Component({
  selector: 'jh-room-facts',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Offers, Signs],
  template: `<h2>{{ words.say().fact({ code: 'screen.room', counts: room().counts }) }}</h2>
    <p class="where" data-testid="room-where"><jh-signs [text]="where()" /></p>
    @if (room().chosen; as chosen) {
      <p class="chosen">
        @if (chosen === 'none') {
          <ng-container i18n>You left this space empty.</ng-container>
        } @else if (missing()) {
          <ng-container i18n>The {{ labelOf(chosen) }} you kept cannot be played here now.</ng-container>
        } @else {
          <ng-container i18n>You kept the {{ labelOf(chosen) }}.</ng-container>
        }
        <button i18n type="button" class="link" (click)="choose(null)">Undecided</button>
      </p>
    }
    @if (offers().length > 0) {
      <h3 i18n>Press to hear it in its place, again to keep it</h3>
      <jh-offers testId="fill" [offers]="offers()" (kept)="keep($event)" />
    } @else {
      <p i18n>No simple fill fits this hand here: the held note and the left hand leave no keys in reach.</p>
    }
    @if (room().chosen !== 'none') {
      <p class="acts"><button i18n type="button" class="btn small" (click)="choose('none')">Leave it empty</button></p>
    }`,
  styleUrl: './room-facts.less',
})
export class RoomFacts {
  readonly room = input.required<FillSlot>();
  private readonly desk = inject(DeskStore);
  private readonly settings = inject(SettingsStore);
  protected readonly words = inject(Words);

  protected readonly where = computed(() => {
    const arrangement = this.desk.arrangement();
    const room = this.room();
    const held = this.desk.currentPart()?.melody.findLast((n) => n.at < room.at);
    if (!arrangement || !held) return '';
    const rests = held.at + held.length <= room.at;
    const say = this.words.say();
    const place = say.place(placeOf(arrangement.bars, room.at));
    return $localize`From ${place}, while the melody ${rests ? $localize`rests` : $localize`holds ${say.pitch(held.pitch)}`}.`;
  });

  protected readonly missing = computed(() => !this.room().offers.some((o) => o.kind === this.room().chosen));

  protected readonly offers = computed((): Offer[] => {
    const arrangement = this.desk.arrangement();
    const room = this.room();
    const from = this.desk.currentPart()?.melody.findLast((n) => n.at < room.at)?.at ?? room.at;
    if (!arrangement) return [];
    // Heard without the fill that stands there now.
    const without = { ...arrangement, score: arrangement.score.filter((n) => n.role !== 'fill' || n.hand !== 'right') };
    const options = asArranged(arrangement, this.settings.tempoPercent());
    return room.offers.map((fill) => ({
      id: fill.kind,
      title: FILL_LABELS[fill.kind],
      aside: fill.kind === room.chosen ? 'kept' : this.words.say().notes(fill.notes.map((n) => n.pitch)),
      why: this.words.say().fact(fill.why),
      pitches: fill.notes.map((n) => n.pitch),
      plan: scheduleStretch(
        without,
        from,
        room.at + room.length + 1,
        options,
        fill.notes.map((n) => ({ ...n, hand: 'right', loudness: TRIED })),
      ),
    }));
  });

  protected labelOf(kind: FillKind): string {
    return kind === 'none' ? 'room' : FILL_LABELS[kind];
  }

  protected keep({ id }: Offer): void {
    const offer = this.room().offers.find((o) => o.kind === id);
    if (offer) this.choose(offer.kind);
  }

  protected choose(kind: FillKind | null): void {
    void this.desk.edit({ code: 'edit.fill', at: this.room().at, kind });
  }
}
