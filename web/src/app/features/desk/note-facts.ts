import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import type { PartNote } from '@joined-hands/core/arrange';
import { chordsHolding, type HoldingChord } from '@joined-hands/core/harmony';
import { countNotes, findConflicts, notesOver } from '@joined-hands/core/join';
import { isBlackKey, midiOf, nameOf, otherName } from '@joined-hands/core/pitch';
import { handsOf, keysOf, rangeOf, STOPS, type NoteChange, type Stop } from '@joined-hands/core/song';
import { placeOf } from '@joined-hands/core/time';
import { besideOffers, startOf, type BesideInterval } from '@joined-hands/core/right-hand';
import { capital, conflictWords, countingWords, MOVE_LABELS } from '@joined-hands/core/words';
import { Player } from '../../platform/audio/player';
import { DeskStore } from '../../platform/state/desk.store';
import { ChangeNote } from '../../ui/change-note';
import { Fold } from '../../ui/fold';
import { Offers, type Offer } from '../../ui/offers';
import { Pressed } from '../../ui/pressed';
import { Signs } from '../../ui/signs';
import { FingerWhy } from './finger-why';
import { OwnHand } from './own-hand';
import { ReminderField } from './reminder';
import { keysFor } from './sounding';
import { chordFault, writeChord } from './writing';
import { Words } from '../../platform/words';

const ORDINAL: Readonly<Record<number, string>> = {
  1: $localize`as its root`,
  3: $localize`as its third`,
  5: $localize`as its fifth`,
  7: $localize`as its seventh`,
};

const BESIDE: Readonly<Record<BesideInterval, string>> = {
  third: $localize`a third below`,
  fourth: $localize`a fourth below`,
  sixth: $localize`a sixth below`,
  octave: $localize`an octave below`,
};

const STOP_WORDS: Readonly<Record<Stop, string>> = { fermata: $localize`Fermata`, breath: $localize`Breath after it` };

/** A melody note: where it is struck, what sounds under it, and every chord that holds it. */
@Component({
  selector: 'jh-note-facts',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ChangeNote, FingerWhy, Fold, Offers, OwnHand, Pressed, ReminderField, Signs],
  templateUrl: './note-facts.html',
  styleUrl: './change-chord.less',
})
export class NoteFacts {
  readonly note = input.required<PartNote>();
  readonly tried = output<readonly string[] | null>();
  private readonly desk = inject(DeskStore);
  private readonly player = inject(Player);
  protected readonly words = inject(Words);
  protected readonly fault = signal<string | null>(null);

  protected readonly song = computed(() => this.desk.document()?.song ?? null);
  private readonly name = computed(() => nameOf(this.note().pitch));
  /** The other name of a black key, or of a white one that is called by a sign; null where the song has no note here to be named. */
  protected readonly otherName = computed(() => {
    const { at, pitch } = this.note();
    const named = this.name().length > 1 || isBlackKey(midiOf(pitch));
    const written = this.desk.document()?.song.melody.some((n) => n.at === at && (midiOf(n.pitch) - midiOf(pitch)) % 12 === 0);
    return named && written ? otherName(this.name()) : null;
  });
  protected readonly letter = computed(() => this.words.say().note(this.name()));
  protected readonly place = computed(() => {
    const bars = this.desk.arrangement()?.bars;
    return bars ? this.words.say().place(placeOf(bars, this.note().at)) : '';
  });

  protected readonly under = computed(() => this.desk.currentPart()?.chords.findLast((c) => c.at <= this.note().at) ?? null);

  /** Where it is struck, what sounds under it, and whether the two grate. */
  protected readonly facts = computed(() => {
    const arrangement = this.desk.arrangement();
    if (!arrangement) return '';
    const note = this.note();
    const under = this.under();
    const [counted] = countNotes([note], arrangement.bars);
    const say = this.words.say();
    const struck = note.with ? [$localize`Struck together with ${say.list(note.with.map(say.pitch))}.`] : [];
    const said = [countingWords(counted), ...struck, ...(note.lyric ? [$localize`Sung on “${note.lyric.text}”.`] : [])];
    if (under) {
      said.push($localize`${say.symbol(under.symbol)} sounds under it.`);
      const clash = findConflicts(notesOver([under], arrangement.song.melody, arrangement.bars)).find((c) => c.at === note.at);
      if (clash) said.push(capital(conflictWords(clash, under.symbol, say)));
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
    const say = this.words.say();
    const came = index > 0 ? $localize` ${capital(MOVE_LABELS[here.move])} to get here.` : '';
    const goes = next ? $localize` Next, ${MOVE_LABELS[next.move]} to ${say.pitch(next.thumb)}.` : '';
    const start = index === 0 && this.note().at === this.desk.currentPart()?.melody[0]?.at;
    const { pitch, finger } = this.note();
    const words = say.fact(start ? startOf(here, pitch, finger) : { code: 'hand.starts', thumb: here.thumb, first: null });
    return `${words}${came}${goes}`;
  });

  protected chooseFinger(finger: number | null): void {
    const fingers = finger === null ? null : [finger];
    void this.desk.edit({ code: 'edit.fingers', hand: 'right', at: this.note().at, fingers });
  }

  private readonly holding = computed(() => {
    const key = this.under()?.key ?? this.desk.arrangement()?.song.key;
    return key ? chordsHolding(this.name(), key) : [];
  });
  protected readonly inKey = computed(() => this.offersOf(this.holding().filter((c) => c.inKey)));
  protected readonly outside = computed(() => this.offersOf(this.holding().filter((c) => !c.inKey)));
  protected readonly partStartsHere = computed(() => this.note().at === this.desk.currentPart()?.start);

  /** Half steps below it of what is struck with it. */
  private readonly beside = computed(() => (this.note().with ?? []).map((p) => midiOf(this.note().pitch) - midiOf(p)));
  /** What is struck with it, and what may be; each is added and taken away by a press. */
  protected readonly besides = computed(() => {
    const { pitch, with: struck = [] } = this.note();
    const doc = this.desk.document();
    const offers = doc ? besideOffers(pitch, doc.song.key, doc.hands) : [];
    const say = this.words.say();
    const own = struck.flatMap((p) => {
      const below = midiOf(pitch) - midiOf(p);
      return offers.some((o) => o.below === below) ? [] : [{ below, text: say.pitch(p), pressed: true }];
    });
    return [
      ...offers.map(({ interval, below }) => ({ below, text: BESIDE[interval], pressed: this.beside().includes(below) })),
      ...own,
    ];
  });

  /** Where time may stop with it: a fermata on it, a breath after it. One that the song brought stays. */
  protected readonly stops = computed(() => {
    const { at, length } = this.note();
    const [doc, arrangement] = [this.desk.document(), this.desk.arrangement()];
    const offers = STOPS.map((stop) => ({ stop, at: stop === 'fermata' ? at : at + length, text: STOP_WORDS[stop] }));
    return offers.flatMap((offer) => {
      const same = (m: { at: number; kind: string }) => m.at === offer.at && m.kind === offer.stop;
      const brought = doc?.song.marks.some(same) ?? true;
      return brought || offer.at >= (arrangement?.song.length ?? 0)
        ? []
        : [{ ...offer, there: doc?.choices.stops.some(same) ?? false }];
    });
  });

  protected toggleStop({ stop, at, there }: { stop: Stop; at: number; there: boolean }): void {
    void this.desk.edit({ code: 'edit.stop', at, stop, there: !there });
  }

  protected toggleBeside(below: number): void {
    const now = this.beside();
    const next = now.includes(below) ? now.filter((b) => b !== below) : [...now, below];
    void this.desk.edit({ code: 'edit.strike-with', at: this.note().at, below: next });
  }

  /** Puts the note right; it stays in hand where it goes. */
  protected async correct({ change, at }: { change: NoteChange; at: number }): Promise<void> {
    await this.desk.edit({ code: 'edit.note', at: this.note().at, change });
    if (at !== this.note().at) this.desk.select({ kind: 'note', at });
  }

  protected respell(name: string): void {
    void this.desk.edit({ code: 'edit.respell', at: this.note().at, name });
  }

  protected hear(): void {
    void this.player.strike(keysOf(this.note()).map(midiOf));
  }

  protected write(symbol: string): void {
    const text = symbol.trim();
    this.fault.set(chordFault(text));
    if (this.fault() === null) writeChord(this.desk, this.note().at, text);
  }

  protected cutHere(): void {
    const part = this.desk.currentPart();
    if (!part) return;
    const { number } = part;
    void this.desk.edit({ code: 'edit.split', part: rangeOf(part), at: this.note().at }).then(() => {
      this.desk.choosePart(number + 1);
    });
  }

  private offersOf(chords: readonly HoldingChord[]): Offer[] {
    const hands = this.desk.document()?.hands ?? handsOf();
    const near = this.under()?.pitches ?? [];
    return chords.map((c) => ({
      id: c.symbol,
      title: this.words.say().symbol(c.symbol),
      aside: ORDINAL[c.as] ?? '',
      why: null,
      pitches: [...keysFor(c.symbol, hands, near), this.note().pitch],
    }));
  }
}
