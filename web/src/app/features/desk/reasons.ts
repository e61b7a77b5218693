import { changeInShort, moveWords, phrases, sentences, shapeWords, togetherWords } from '@joined-hands/core/words';
import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, output } from '@angular/core';
import { shapeWherever, type PartChord } from '@joined-hands/core/arrange';
import { chordFingerFact, triedFingersFact } from '@joined-hands/core/fingers';
import { degreeOf, otherNames, parseChord } from '@joined-hands/core/harmony';
import type { VoicedChord, VoicingFact } from '@joined-hands/core/left-hand';
import { midiOf } from '@joined-hands/core/pitch';
import { Player } from '../../platform/audio/player';
import { DeskStore } from '../../platform/state/desk.store';
import { Offers, type Offer } from '../../ui/offers';
import { attacksOf } from '../../ui/join-strip/struck';
import { Signs } from '../../ui/signs';
import { ChangeChord } from './change-chord';
import { OwnKeys } from './own-keys';
import { NoteFacts } from './note-facts';
import { OwnHand } from './own-hand';
import { ReminderField } from './reminder';
import { RoomFacts } from './room-facts';
import { WorthKnowing } from './worth-knowing';
import { latestWins } from '../../platform/latest';
import { Words } from '../../platform/words';
import { Workers } from '../../platform/workers/workers';

/** Fingers as they are typed, "5-3-1". */
const fingersIn = (text: string): number[] => [...text.matchAll(/[1-5]/g)].map(Number);

/** True where fingers fall towards the thumb, as they lie on keys from the lowest up. */
const falls = (fingers: readonly number[]): boolean => fingers.every((f, i) => i === 0 || f < fingers[i - 1]);

/** Why this chord lies here, what else there is, and how to change it. */
@Component({
  selector: 'jh-reasons',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ChangeChord, NoteFacts, Offers, OwnHand, OwnKeys, ReminderField, RoomFacts, Signs, WorthKnowing],
  templateUrl: './reasons.html',
  styleUrl: './reasons.less',
})
export class Reasons {
  protected readonly desk = inject(DeskStore);
  private readonly player = inject(Player);
  protected readonly words = inject(Words);
  /** Keys of an alternative that is heard, to be shown on the keyboard; null when it is let go. */
  readonly tried = output<readonly string[] | null>();

  protected readonly chord = this.desk.selectedChord;
  protected readonly note = this.desk.selectedNote;
  protected readonly room = this.desk.selectedRoom;
  protected readonly before = computed(() => {
    const chord = this.chord();
    const all = this.desk.arrangement()?.parts.flatMap((p) => p.chords) ?? [];
    const index = all.findIndex((c) => c.at === chord?.at);
    return index > 0 ? all[index - 1] : null;
  });

  /** What it is in the song: its degree, where it comes from, what it does for the tune, how the two sound together. */
  protected readonly inTheSong = computed(() => {
    const chord = this.chord();
    const point = this.desk.currentPart()?.together.find((t) => t.at === chord?.at);
    if (!chord) return '';
    const say = this.words.say();
    const meets = point ? togetherWords(point, say) : '';
    const sounds =
      chord.withMelody && chord.withMelody !== chord.symbol
        ? $localize`Together they sound like ${say.symbol(chord.withMelody)}.`
        : '';
    return [this.named(), this.source(), phrases(chord.chordWhy, say), meets, sounds].filter(Boolean).join(' ');
  });

  /** Its degree, the key it is heard in, and the other names of its notes. */
  private readonly named = computed(() => {
    const chord = this.chord();
    const parsed = chord ? parseChord(chord.symbol) : null;
    if (!chord || parsed?.kind !== 'chord') return '';
    const others = otherNames(parsed);
    const say = this.words.say();
    const same = others.length > 0 ? $localize` The same notes make ${others.map(say.symbol).join(' or ')}.` : '';
    return $localize`${degreeOf(parsed, chord.key)} in ${say.key(chord.key)}.${same}`;
  });

  private readonly source = computed(() => {
    switch (this.chord()?.source) {
      case 'suggested':
        return $localize`Suggested for the melody.`;
      case 'chosen':
        return $localize`Written by you.`;
      default:
        return '';
    }
  });

  protected readonly places = computed((): Offer[] =>
    (this.chord()?.alternatives ?? []).map((a) => ({
      id: a.pitches.join(' '),
      title: shapeWords(a.shape, this.words.say()),
      aside: this.before() ? $localize`moves ${a.motion}` : '',
      why: this.letters(a.pitches),
      pitches: a.pitches,
    })),
  );

  private readonly workers = inject(Workers);
  private readonly begin = latestWins();
  /** What speaks against the voicing that is heard; null where none is, or nothing does. */
  protected readonly whyNot = linkedSignal<readonly Offer[], VoicingFact | null>({
    source: this.places,
    computation: () => null,
  });

  /** A voicing is heard: its keys are shown, and what decided against it is asked of the search. */
  protected async tryPlace(pitches: readonly string[] | null): Promise<void> {
    this.tried.emit(pitches);
    this.whyNot.set(null);
    const isLatest = this.begin();
    const [document, chord, places] = [this.desk.document(), this.chord(), this.places()];
    if (!pitches || !document || !chord) return;
    const fact = await this.workers.arranger.call('whyNot', document, chord.at, pitches);
    // Another chord may be looked at by now.
    if (isLatest() && places === this.places() && fact.ok) this.whyNot.set(fact.value);
  }

  protected readonly fingersKept = computed(
    () => this.desk.document()?.choices.fingers.some((f) => f.hand === 'left' && f.at === this.chord()?.writtenAt) ?? false,
  );
  protected readonly fingerFault = linkedSignal<number | undefined, string | null>({
    source: () => this.chord()?.at,
    computation: () => null,
  });

  /** Takes fingers as they are typed, "5-3-1": one for each key, falling towards the thumb. */
  protected chooseFingers(chord: PartChord, field: HTMLInputElement): void {
    const fingers = fingersIn(field.value);
    this.typed.set(null);
    if (fingers.length !== chord.pitches.length || !falls(fingers)) {
      const keys = chord.pitches.length;
      this.fingerFault.set(this.words.say().fact({ code: 'screen.fingers-wanted', keys }));
      field.value = chord.fingers.join('-');
      return;
    }
    this.fingerFault.set(null);
    void this.desk.edit({ code: 'edit.fingers', hand: 'left', at: chord.writtenAt, fingers });
  }

  /** Fingers as they are typed, if they are as many as the keys; null otherwise. */
  protected readonly typed = linkedSignal<number | undefined, readonly number[] | null>({
    source: () => this.chord()?.at,
    computation: () => null,
  });

  /** Why the chord has its fingers; while others are typed, what those would cost. */
  protected fingersSay(chord: PartChord): string {
    const hands = this.desk.document()?.hands;
    if (!hands) return '';
    const tried = this.typed();
    const other = tried !== null && tried.join() !== chord.fingers.join();
    const fact = other ? triedFingersFact(chord, tried, hands) : chordFingerFact(chord, this.fingersKept(), hands);
    return this.words.say().fact(fact);
  }

  protected readFingers(chord: PartChord, text: string): void {
    const fingers = fingersIn(text);
    this.typed.set(fingers.length === chord.pitches.length && falls(fingers) ? fingers : null);
  }

  protected letFingersGo(chord: PartChord): void {
    void this.desk.edit({ code: 'edit.fingers', hand: 'left', at: chord.writtenAt, fingers: null });
  }

  protected letters(pitches: readonly string[]): string {
    return this.words.say().notes(pitches);
  }

  /** Why it lies this way, and what its voices do: sentences. */
  protected why(chord: PartChord): string {
    return sentences(chord.why, this.words.say());
  }

  /** The fingers of its pattern in order, and where they cross; empty where it is played plainly. */
  protected pattern(chord: PartChord): string {
    if (!chord.dressed) return '';
    const attacks = attacksOf(chord).map((a) => a.fingers);
    return sentences([{ code: 'finger.pattern', attacks }, ...chord.dressed.turns], this.words.say());
  }

  protected change(chord: PartChord): string {
    return changeInShort(chord.moves, this.words.say());
  }

  protected moveOf(move: PartChord['moves'][number]): string {
    return moveWords(move, this.words.say());
  }

  protected arrow(semitones: number): string {
    return semitones === 0 ? '=' : semitones > 0 ? '↗' : '↘';
  }

  protected hear(pitches: readonly string[]): void {
    void this.player.strike(pitches.map(midiOf));
  }

  protected keepPlace({ pitches }: Offer): void {
    const at = this.chord()?.writtenAt;
    if (at !== undefined) void this.desk.edit({ code: 'edit.voicing', at, pitches });
  }

  /** Keeps the pianist's own keys, for this chord or wherever it comes. */
  protected keepKeys(chord: PartChord, { pitches, everywhere }: { pitches: readonly string[]; everywhere: boolean }): void {
    if (everywhere) this.keepWherever(chord, pitches);
    else void this.desk.edit({ code: 'edit.voicing', at: chord.writtenAt, pitches: [...pitches] });
  }

  /** Keeps keys wherever the chord of a symbol comes. */
  protected keepWherever({ symbol }: PartChord, pitches: readonly string[]): void {
    void this.desk.edit(shapeWherever(this.desk.arrangement()?.parts ?? [], symbol, pitches));
  }

  /** Places in the song where the chord has other keys than here. */
  protected readonly elsewhere = computed(() => {
    const here = this.chord();
    const all = this.desk.arrangement()?.parts.flatMap((p) => p.chords) ?? [];
    return all.filter((c) => c.symbol === here?.symbol && c.pitches.join() !== here.pitches.join()).length;
  });

  protected letGo(chord: VoicedChord): void {
    void this.desk.edit({ code: 'edit.free-voicing', at: chord.writtenAt });
  }
}
