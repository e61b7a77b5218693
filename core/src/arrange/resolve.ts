import { parseChord } from '../harmony/symbol.js';
import { midiOf, octaveUp, type Pitch } from '../pitch/pitch.js';
import { layBars, placeName, type Bar } from '../time/bars.js';
import { KEYBOARDS, type Document, type Hands } from '../song/decisions.js';
import { resolveChords } from '../song/edits.js';
import type { Song } from '../song/song.js';
import type { Finding } from './findings.js';

/** The song as it will be played, and what had to be said on the way. */
export interface Resolved {
  readonly song: Song;
  readonly findings: Finding[];
}

/** Puts the pianist's chords into the song and the tune onto the keyboard. */
export function resolveSong(doc: Document): Resolved {
  const bars = layBars(doc.song);
  const findings: Finding[] = [];
  const chords = resolveChords(doc);
  for (const chord of chords) {
    if (parseChord(chord.symbol).kind !== 'unread') continue;
    const message = `“${chord.symbol}” at ${placeName(bars, chord.at)} is kept as text: it names no chord to play.`;
    findings.push(finding('chord-unread', 'warn', chord.at, message, ['write the chord in the usual way']));
  }
  if (chords.length === 0) {
    const message = 'This song has no chord symbols, so the left hand rests. Write a chord into any bar to begin.';
    findings.push(finding('no-chords', 'warn', null, message, ['write a chord']));
  }
  const melody = fitTune(doc, bars, findings);
  return { song: { ...doc.song, chords, melody }, findings };
}

function finding(
  rule: string,
  severity: Finding['severity'],
  at: number | null,
  message: string,
  fixes: readonly string[],
): Finding {
  return { rule, severity, at, part: null, chordAt: at, message, fixes };
}

/** Moves a tune that runs off a short keyboard: as a whole by octaves where that helps, else note by note. */
function fitTune(doc: Document, bars: readonly Bar[], findings: Finding[]): Song['melody'] {
  const { melody } = doc.song;
  const outside = outsideOf(doc.hands);
  const first = melody.find((n) => outside(n.pitch));
  if (!first) return melody;
  const keys = `${doc.hands.keys} keys`;
  const where = placeName(bars, first.at);
  for (const octaves of [-1, 1, -2, 2]) {
    const moved = melody.map((n) => ({ ...n, pitch: octaveUp(n.pitch, octaves) }));
    if (moved.some((n) => outside(n.pitch))) continue;
    const words = `${Math.abs(octaves) === 1 ? 'an octave' : 'two octaves'} ${octaves < 0 ? 'down' : 'up'}`;
    const message = `${first.pitch} at ${where} is not on a keyboard of ${keys}: the whole tune is written ${words}.`;
    findings.push(finding('tune-moved', 'warn', first.at, message, ['choose a longer keyboard', 'choose another key']));
    return moved;
  }
  const message = `${first.pitch} at ${where} is not on a keyboard of ${keys}: such notes are written in the nearest octave that is.`;
  findings.push(finding('tune-folded', 'warn', first.at, message, ['choose a longer keyboard', 'choose another key']));
  const { low } = KEYBOARDS[doc.hands.keys];
  return melody.map((n) => {
    if (!outside(n.pitch)) return n;
    let pitch = n.pitch;
    while (outside(pitch)) pitch = octaveUp(pitch, midiOf(pitch) < low ? 1 : -1);
    return { ...n, pitch };
  });
}

function outsideOf(hands: Hands): (pitch: Pitch) => boolean {
  const { low, high } = KEYBOARDS[hands.keys];
  return (pitch) => midiOf(pitch) < low || midiOf(pitch) > high;
}
