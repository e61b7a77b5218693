import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import {
  capital,
  chordsHolding,
  conflictSentence,
  countNotes,
  countSentence,
  findConflicts,
  handsOf,
  keyWords,
  midiOf,
  moveWords,
  nameOf,
  notesOver,
  placeName,
  setFingers,
  splitPart,
  startWords,
  type HoldingChord,
  type PartNote,
} from '@joined-hands/core';
import { Player } from '../audio/player';
import { DeskStore } from '../state/desk.store';
import { Offers, type Offer } from '../widgets/offers';
import { Signs } from '../widgets/signs';
import { FingerChoice } from './finger-choice';
import { keysFor } from './sounding';
import { chordFault, writeChord } from './writing';

const ORDINAL: Readonly<Record<number, string>> = { 1: 'as its root', 3: 'as its third', 5: 'as its fifth', 7: 'as its seventh' };

/** A melody note: where it is struck, what sounds under it, and every chord that holds it. */
@Component({
  selector: 'jh-note-facts',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [FingerChoice, Offers, Signs],
  templateUrl: './note-facts.html',
  styleUrl: './change-chord.less',
})
export class NoteFacts {
  readonly note = input.required<PartNote>();
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
    const [counted] = countNotes([note], arrangement.bars);
    const said = [countSentence(counted), ...(note.lyric ? [`Sung on “${note.lyric.text}”.`] : [])];
    if (under) {
      said.push(`${under.symbol} sounds under it.`);
      const clash = findConflicts(notesOver([under], arrangement.song.melody, arrangement.bars)).find((c) => c.at === note.at);
      if (clash) said.push(conflictSentence(clash));
    }
    return said.join(' ');
  });

  protected readonly fingerKept = computed(
    () => this.desk.document()?.choices.fingers.some((f) => f.hand === 'right' && f.at === this.note().at) ?? false,
  );

  /** Where the hand lies for this note, how it came there, and where it goes next. */
  protected readonly placeSays = computed(() => {
    const places = this.desk.currentPart()?.places ?? [];
    const index = places.findLastIndex((p) => p.start <= this.note().at);
    if (index < 0) return '';
    const [here, next] = [places[index], places[index + 1]];
    const came = index > 0 ? ` ${capital(moveWords(here))} to come here.` : '';
    const goes = next ? ` Next ${moveWords(next)}, to ${next.thumb}.` : '';
    const start = index === 0 && this.note().at === this.desk.currentPart()?.melody[0]?.at;
    const words = start ? startWords(here, this.note().pitch, this.note().finger) : `Thumb on ${keyWords(here.thumb)}.`;
    return `${words}${came}${goes}`;
  });

  protected chooseFinger(finger: number | null): void {
    const { at } = this.note();
    const label = finger === null ? 'let a finger go' : `finger ${finger}`;
    void this.desk.edit(label, (d) => setFingers(d, 'right', at, finger === null ? null : [finger]));
  }

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
