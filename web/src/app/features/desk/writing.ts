import { isChordText } from '@joined-hands/core/song';
import type { DeskStore } from '../../platform/state/desk.store';

/** What is wrong with text that is to stand as a chord, with a way out; null for a chord symbol. */
export function chordFault(text: string): string | null {
  if (isChordText(text)) return null;
  return text
    ? $localize`“${text}” is not a chord symbol. Write one such as Gm7 or D/F#, or N.C. for none.`
    : $localize`Write a chord such as Gm7, or N.C. for none.`;
}

/** Writes a chord at a place, up to the chord that is struck next there, and chooses it. */
export function writeChord(desk: InstanceType<typeof DeskStore>, at: number, symbol: string): void {
  const until = desk.arrangement()?.song.chords.find((c) => c.at > at)?.at;
  void desk.edit({ code: 'edit.chord', at, symbol, until }).then(() => {
    desk.select({ kind: 'chord', at });
  });
}
