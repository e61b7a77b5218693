import { ChangeDetectionStrategy, Component, inject, input, linkedSignal, output } from '@angular/core';
import type { Plan } from '../platform/audio/schedule';
import { Player } from '../platform/audio/player';
import { Signs } from './signs';
import { midiOf } from '@joined-hands/core/pitch';

/** Something that may be kept in place of what is there, with the keys it sounds with. */
export interface Offer {
  readonly id: string;
  /** Set large: the chord's symbol, or the place in words. */
  readonly title: string;
  /** Beside the title, small. */
  readonly aside: string;
  /** Under the title: why. */
  readonly why: string | null;
  readonly pitches: readonly string[];
  /** What is heard where it is more than its keys struck together. */
  readonly plan?: Plan;
}

/** What tells lists of offers apart for who reads them. */
const listed = (offers: readonly Offer[]): string => offers.map((o) => `${o.id} ${o.aside}`).join();

/** A list of offers: one press hears an offer, the next keeps it. */
@Component({
  selector: 'jh-offers',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Signs],
  template: `@for (offer of offers(); track offer.id) {
    <button
      type="button"
      [class.on]="hearing() === offer.id"
      [attr.data-testid]="testId()"
      [attr.aria-label]="labelOf(offer)"
      (click)="press(offer)"
    >
      <b><jh-signs [text]="offer.title" /></b>
      <span class="aside"><jh-signs [text]="hearing() === offer.id ? keeping : offer.aside" /></span>
      @if (offer.why; as why) {
        <span class="why"><jh-signs [text]="why" /></span>
      }
    </button>
  }`,
  styleUrl: './offers.less',
  host: { '[class.chips]': 'chips()' },
})
export class Offers {
  readonly offers = input.required<readonly Offer[]>();
  /** Small ones side by side instead of a list. */
  readonly chips = input(false);
  readonly testId = input('offer');
  readonly tried = output<readonly string[] | null>();
  readonly kept = output<Offer>();
  protected readonly keeping = $localize`press to keep`;
  private readonly player = inject(Player);
  /** The offer that is heard, by its id; it stays so where the same offers come again, as after the rest of a long song was arranged. */
  protected readonly hearing = linkedSignal<readonly Offer[], string | null>({
    source: this.offers,
    computation: (offers, before) => (before && listed(offers) === listed(before.source) ? before.value : null),
  });

  protected labelOf({ id, title }: Offer): string {
    return this.hearing() === id ? $localize`Keep ${title}` : $localize`Hear ${title}`;
  }

  protected press(offer: Offer): void {
    if (this.hearing() === offer.id) {
      this.hearing.set(null);
      this.tried.emit(null);
      return this.kept.emit(offer);
    }
    this.hearing.set(offer.id);
    this.tried.emit(offer.pitches);
    void (offer.plan ? this.player.play(offer.plan) : this.player.strike(offer.pitches.map(midiOf)));
  }
}
