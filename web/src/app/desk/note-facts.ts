import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import {
  chordsHolding,
  conflictSentence,
  countIn,
  findConflicts,
  handsOf,
  midiOf,
  nameOf,
  notesOver,
  placeName,
  splitPart,
  type HoldingChord,
  type MelodyNote,
} from '@joined-hands/core';
import { Player } from '../audio/player';
import { DeskStore } from '../state/desk.store';
import { Offers, type Offer } from '../widgets/offers';
import { Signs } from '../widgets/signs';
import { keysFor } from './sounding';
import { chordFault, writeChord } from './writing';

const ORDINAL: Readonly<Record<number, string>> = { 1: 'as its root', 3: 'as its third', 5: 'as its fifth', 7: 'as its seventh' };

/** A melody note: where it is struck, what sounds under it, and every chord that holds it. */
@Component({
  selector: 'jh-note-facts',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Offers, Signs],
  templateUrl: './note-facts.html',
  styleUrl: './change-chord.less',
})
export class NoteFacts {
  readonly note = input.required<MelodyNote>();
  readonly tried = output<readonly string[] | null>();
  private readonly desk = inject(DeskStore);
  private readonly player = inject(Player);
  protected readonly fault = signal<string | null>(null);

  protected readonly letter = computed(() => nameOf(this.note().pitch));
  protected readonly place = computed(() => {
    const bars = this.desk.arrangement()?.bars;
    return bars ? placeName(bars, this.note().at) : '';
  });

  protected readonly under = computed(() => this.desk.currentPart()?.chords.findLast((c) => c.at <= this.note().at) ?? null);

  /** Where it is struck, what sounds under it, and whether the two grate. */
  protected readonly facts = computed(() => {
    const arrangement = this.desk.arrangement();
    if (!arrangement) return '';
    const note = this.note();
    const under = this.under();
    const said = [`Struck on ${countIn(arrangement.bars, note.at)}${note.lyric ? `, on “${note.lyric.text}”` : ''}.`];
    if (under) {
      said.push(`${under.symbol} sounds under it.`);
      const clash = findConflicts(notesOver([under], arrangement.song.melody, arrangement.bars)).find((c) => c.at === note.at);
      if (clash) said.push(conflictSentence(clash));
    }
    return said.join(' ');
  });

  private readonly holding = computed(() => {
    const key = this.under()?.key ?? this.desk.arrangement()?.song.key;
    return key ? chordsHolding(this.letter(), key) : [];
  });
  protected readonly inKey = computed(() => this.offersOf(this.holding().filter((c) => c.inKey)));
  protected readonly outside = computed(() => this.offersOf(this.holding().filter((c) => !c.inKey)));
  protected readonly partStartsHere = computed(() => this.note().at === this.desk.currentPart()?.start);

  protected hear(): void {
    void this.player.strike([midiOf(this.note().pitch)]);
  }

  protected write(symbol: string): void {
    const text = symbol.trim();
    this.fault.set(chordFault(text));
    if (this.fault() === null) writeChord(this.desk, this.note().at, text);
  }

  protected cutHere(): void {
    const parts = this.desk.arrangement()?.parts;
    const part = this.desk.currentPart();
    const { at } = this.note();
    if (!parts || !part) return;
    void this.desk
      .edit('cut a part in two', (d) => splitPart(d, parts, part.number - 1, at))
      .then(() => {
        this.desk.choosePart(part.number + 1);
      });
  }

  private offersOf(chords: readonly HoldingChord[]): Offer[] {
    const hands = this.desk.document()?.hands ?? handsOf();
    const near = this.under()?.pitches ?? [];
    return chords.map((c) => ({
      id: c.symbol,
      title: c.symbol,
      aside: ORDINAL[c.as] ?? '',
      why: null,
      pitches: [...keysFor(c.symbol, hands, near), this.note().pitch],
    }));
  }
}
