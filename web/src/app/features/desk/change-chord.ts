import { CHORD_CHANGE_LABELS, phrases } from '@joined-hands/core/words';
import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, output } from '@angular/core';
import type { PartChord } from '@joined-hands/core/arrange';
import { approachChords, chordChanges, forLeadingTriad, parseChord, turnBacks } from '@joined-hands/core/harmony';
import { handsOf, type Edit } from '@joined-hands/core/song';
import { barAt, beatTicks, countIn, placeOf } from '@joined-hands/core/time';
import { DeskStore } from '../../platform/state/desk.store';
import { Offers, type Offer } from '../../ui/offers';
import { Signs } from '../../ui/signs';
import { keysFor, turned } from './sounding';
import { chordFault, writeChord } from './writing';
import { Words } from '../../platform/words';

/** Everything that can be done to the chosen chord: others for its place, its kind, its place in time, what leads on. */
@Component({
  selector: 'jh-change-chord',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Offers, Signs],
  templateUrl: './change-chord.html',
  styleUrl: './change-chord.less',
})
export class ChangeChord {
  readonly chord = input.required<PartChord>();
  readonly tried = output<readonly string[] | null>();
  private readonly desk = inject(DeskStore);
  private readonly words = inject(Words);
  private readonly hands = computed(() => this.desk.document()?.hands ?? handsOf());
  protected readonly fault = linkedSignal<PartChord, string | null>({ source: this.chord, computation: () => null });

  protected readonly place = computed(() => {
    const bars = this.desk.arrangement()?.bars;
    return bars ? this.words.say().place(placeOf(bars, this.chord().at)) : '';
  });

  /** The chord that is struck next, or null at the end of the song. */
  private readonly next = computed(() => {
    const chords = this.desk.arrangement()?.song.chords ?? [];
    const { at, symbol } = this.chord();
    return chords.find((c) => c.at > at && c.symbol !== symbol) ?? null;
  });

  protected readonly others = computed(() => {
    const chord = this.chord();
    const instead = this.leadingOffer();
    const ranked = chord.otherChords.map((o) => this.offer(o.symbol, this.costWords(o.cost), phrases(o.why, this.words.say())));
    return instead ? [instead, ...ranked.filter((o) => o.id !== instead.id)] : ranked;
  });

  protected readonly kinds = computed(() => {
    const parsed = parseChord(this.chord().symbol);
    return parsed.kind === 'chord'
      ? chordChanges(parsed).map((c) => this.offer(c.symbol, CHORD_CHANGE_LABELS[c.kind], null))
      : [];
  });

  protected readonly canTurn = computed(() => {
    const [up, down] = ([1, -1] as const).map((by) => turned(this.chord(), this.hands(), by));
    return { up, down };
  });

  /** Chords that lead to what follows, and where they would be struck; back to the start after the last one. */
  protected readonly approach = computed(() => {
    const chord = this.chord();
    const arrangement = this.desk.arrangement();
    const from = parseChord(chord.symbol);
    if (!arrangement || from.kind !== 'chord') return null;
    const next = this.next();
    const end = next?.at ?? arrangement.song.length;
    const at = end - beatTicks(barAt(arrangement.bars, end - 1).meter);
    if (at <= chord.at) return null;
    const to = next ? parseChord(next.symbol) : null;
    const found = to?.kind === 'chord' ? approachChords(from, to, chord.key) : next ? [] : turnBacks(arrangement.song.key);
    if (found.length === 0) return null;
    const title = next
      ? $localize`On the way to ${this.words.say().symbol(next.symbol)}, on count ${countIn(arrangement.bars, at)}`
      : $localize`Back to the start, on count ${countIn(arrangement.bars, at)}`;
    return { at, title, offers: found.map((f) => this.offer(f.symbol, '', this.words.say().fact(f.why))) };
  });

  protected readonly middle = computed(() => {
    const { at, length } = this.chord();
    const bars = this.desk.arrangement()?.bars;
    if (!bars) return null;
    const beat = beatTicks(barAt(bars, at).meter);
    const half = at + Math.round(length / 2 / beat) * beat;
    return half > at && half < at + length ? half : null;
  });

  /** Half a beat before the next chord, where it may be struck early; null where this chord leaves no room. */
  protected readonly early = computed(() => {
    const next = this.next();
    const bars = this.desk.arrangement()?.bars;
    if (!next || !bars) return null;
    const at = next.at - beatTicks(barAt(bars, next.at - 1).meter) / 2;
    return at > this.chord().at ? { at, symbol: next.symbol } : null;
  });

  protected readonly changed = computed(
    () => this.desk.document()?.choices.chords.some((c) => c.at === this.chord().symbolAt) ?? false,
  );

  protected keep(offer: Offer, at = this.chord().writtenAt): void {
    writeChord(this.desk, at, offer.id);
  }

  protected writeText(field: HTMLInputElement): void {
    const symbol = field.value.trim();
    this.fault.set(chordFault(symbol));
    if (this.fault() === null) writeChord(this.desk, this.chord().writtenAt, symbol);
  }

  protected turn(pitches: readonly string[]): void {
    const { writtenAt: at } = this.chord();
    this.change({ code: 'edit.voicing', at, pitches });
  }

  protected strikeAgain(at: number): void {
    const { symbol } = this.chord();
    this.change({ code: 'edit.chord', at, symbol, how: 'again' }, at);
  }

  protected comeEarly({ at, symbol }: { at: number; symbol: string }): void {
    this.change({ code: 'edit.chord', at, symbol, how: 'early' }, at);
  }

  protected remove(): void {
    const { symbolAt: at, symbol } = this.chord();
    this.change({ code: 'edit.leave-out', at, symbol });
  }

  protected restore(): void {
    this.change({ code: 'edit.restore-chord', at: this.chord().symbolAt });
  }

  private change(edit: Edit, at?: number): void {
    void this.desk.edit(edit).then(() => {
      if (at !== undefined) this.desk.select({ kind: 'chord', at });
    });
  }

  private offer(symbol: string, aside: string, why: string | null): Offer {
    return {
      id: symbol,
      title: this.words.say().symbol(symbol),
      aside,
      why,
      pitches: keysFor(symbol, this.hands(), this.chord().pitches),
    };
  }

  private leadingOffer(): Offer | null {
    const { symbol, key } = this.chord();
    const parsed = parseChord(symbol);
    const instead = parsed.kind === 'chord' ? forLeadingTriad(parsed, key) : null;
    return instead
      ? this.offer(instead, $localize`often played like this`, $localize`The same third and fifth; the ear supplies the root.`)
      : null;
  }

  private costWords(cost: number): string {
    return cost < -0.25
      ? $localize`fits better`
      : cost < 0.25
        ? $localize`fits as well`
        : cost < 1.5
          ? $localize`nearly as well`
          : $localize`a more daring choice`;
  }
}
