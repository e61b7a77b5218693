import { parseChord } from '@joined-hands/core/harmony';
import { motionBetween, voicingsFor, type VoicedChord, type Voicing } from '@joined-hands/core/left-hand';
import { midiOf } from '@joined-hands/core/pitch';
import { KEYBOARDS, type Hands } from '@joined-hands/core/song';

/** The keys a chord symbol is heard with: the full voicing nearest to what lies there now. */
export function keysFor(symbol: string, hands: Hands, near: readonly string[]): readonly string[] {
  const chord = parseChord(symbol);
  if (chord.kind !== 'chord') return [];
  const here = near.map(midiOf);
  const all = voicingsFor(chord, hands, 'close');
  const full = all.filter((v) => v.form === 'full');
  const off = (v: Voicing) =>
    here.length > 0 ? motionBetween(here, v.midis) : Math.abs(v.midis[0] - KEYBOARDS[hands.keys].low - 24);
  return (full.length > 0 ? full : all).reduce((best, v) => (off(v) < off(best) ? v : best)).pitches;
}

/** The same chord turned over: the next voicing of as many notes above or below. Null at the end of the register. */
export function turned(chord: VoicedChord, hands: Hands, by: 1 | -1): readonly string[] | null {
  const parsed = parseChord(chord.symbol);
  if (parsed.kind !== 'chord') return null;
  const middle = (midis: readonly number[]) => midis.reduce((a, b) => a + b, 0) / midis.length;
  const here = middle(chord.pitches.map(midiOf));
  const names = new Set(chord.pitches.map((p) => midiOf(p) % 12));
  const found = voicingsFor(parsed, hands, 'close')
    .filter((v) => v.midis.length === chord.pitches.length && v.midis.every((m) => names.has(m % 12)))
    .filter((v) => (middle(v.midis) - here) * by > 0)
    .sort((a, b) => (middle(a.midis) - middle(b.midis)) * by);
  return found[0]?.pitches ?? null;
}
