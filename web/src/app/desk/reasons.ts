import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, output } from '@angular/core';
import {
  countIn,
  isChordText,
  midiOf,
  nameOf,
  pinVoicing,
  placeName,
  setChord,
  splitPart,
  togetherSentence,
  unpinVoicing,
  type Alternative,
  type VoicedChord,
} from '@joined-hands/core';
import { Player } from '../audio/player';
import { DeskStore } from '../state/desk.store';
import { Signs } from '../widgets/signs';

const MOST_MOTION = 16;

/** Why this chord lies here, what else there is, and how to change it. */
@Component({
  selector: 'jh-reasons',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Signs],
  templateUrl: './reasons.html',
  styleUrl: './reasons.less',
})
export class Reasons {
  protected readonly desk = inject(DeskStore);
  private readonly player = inject(Player);
  /** Keys of an alternative that is heard, to be shown on the keyboard; null when it is let go. */
  readonly tried = output<readonly string[] | null>();

  protected readonly chord = this.desk.selectedChord;
  protected readonly note = this.desk.selectedNote;
  /** The alternative that was heard last and may be kept; let go with the selection. */
  protected readonly hearing = linkedSignal<{ chord: VoicedChord | null; alternative: Alternative | null }>(() => ({
    chord: this.chord(),
    alternative: null,
  }));
  protected readonly chordFault = linkedSignal<{ at: number | undefined; text: string | null }>(() => ({
    at: this.desk.selection()?.at,
    text: null,
  }));

  protected readonly before = computed(() => {
    const chord = this.chord();
    const all = this.desk.arrangement()?.parts.flatMap((p) => p.chords) ?? [];
    const index = all.findIndex((c) => c.at === chord?.at);
    return index > 0 ? all[index - 1] : null;
  });

  protected readonly together = computed(() => {
    const chord = this.chord();
    const point = this.desk.currentPart()?.together.find((t) => t.at === chord?.at);
    return chord && point ? togetherSentence(point, chord.name) : null;
  });

  protected readonly findings = computed(() => {
    const part = this.desk.currentPart();
    const all = this.desk.arrangement()?.findings ?? [];
    return all.filter((f) => f.part === null || f.part === part?.number);
  });

  protected readonly place = computed(() => {
    const at = this.desk.selection()?.at;
    const bars = this.desk.arrangement()?.bars;
    return at === undefined || !bars ? '' : placeName(bars, at);
  });

  protected readonly struck = computed(() => {
    const note = this.note();
    const bars = this.desk.arrangement()?.bars;
    if (!note || !bars) return '';
    const word = note.lyric ? `, on “${note.lyric.text}”` : '';
    return `Struck on ${countIn(bars, note.at)}${word}.`;
  });

  /** The chord that sounds under the chosen note. */
  protected readonly under = computed(() => {
    const note = this.note();
    return note ? (this.desk.currentPart()?.chords.findLast((c) => c.at <= note.at) ?? null) : null;
  });

  protected readonly partStartsHere = computed(() => this.note()?.at === this.desk.currentPart()?.start);

  protected letters(pitches: readonly string[]): string {
    return pitches.map(nameOf).join(' ');
  }

  protected share(motion: number): number {
    return Math.min(100, Math.round((100 * motion) / MOST_MOTION));
  }

  protected arrow(semitones: number): string {
    return semitones === 0 ? '=' : semitones > 0 ? '↗' : '↘';
  }

  protected hear(pitches: readonly string[]): void {
    void this.player.strike(pitches.map(midiOf));
  }

  /** One press hears an alternative, the next keeps it. */
  protected tryOrKeep(alternative: Alternative): void {
    const chord = this.chord();
    if (!chord) return;
    if (this.hearing().alternative !== alternative) {
      this.hearing.set({ chord, alternative });
      this.tried.emit(alternative.pitches);
      this.hear(alternative.pitches);
      return;
    }
    this.tried.emit(null);
    void this.desk.edit(`keep ${alternative.symbol}`, (d) => pinVoicing(d, chord.at, alternative.pitches));
  }

  protected letGo(chord: VoicedChord): void {
    void this.desk.edit(`let ${chord.symbol} go`, (d) => unpinVoicing(d, chord.at));
  }

  protected writeChord(at: number, field: HTMLInputElement): void {
    const symbol = field.value.trim();
    if (!isChordText(symbol)) {
      const text = symbol
        ? `“${symbol}” is not a chord symbol. Write one such as Gm7 or D/F#, or N.C. for none.`
        : 'Write a chord such as Gm7, or N.C. for none.';
      return this.chordFault.set({ at, text });
    }
    this.chordFault.set({ at, text: null });
    void this.desk
      .edit(`write ${symbol}`, (d) => setChord(d, at, symbol))
      .then(() => {
        this.desk.select({ kind: 'chord', at });
      });
  }

  protected cutHere(at: number): void {
    const parts = this.desk.arrangement()?.parts;
    const part = this.desk.currentPart();
    if (!parts || !part) return;
    void this.desk
      .edit('cut a part in two', (d) => splitPart(d, parts, part.number - 1, at))
      .then(() => {
        this.desk.choosePart(part.number + 1);
      });
  }
}
