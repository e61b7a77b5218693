import { parseChord } from '../harmony/symbol.js';
import { midiOf, octaveUp, type Pitch } from '../pitch/pitch.js';
import { withStays } from '../right-hand/stay.js';
import { placeName, type Bar } from '../time/bars.js';
import { KEYBOARDS, type Document, type Hands } from '../song/decisions.js';
import type { Song } from '../song/song.js';
import { advice, type Fix } from './fixes.js';
import type { Finding } from './findings.js';
import type { HarmonisedChord } from './harmonise.js';

/** The tune as it will be played, and what had to be said on the way. */
export interface ResolvedTune {
  /** The tune on the keyboard's keys, as it was written. */
  readonly written: Song['melody'];
  /** The same with the stretches where the right hand stays on its notes. */
  readonly played: Song['melody'];
  readonly findings: Finding[];
}

/** Puts the tune onto the keyboard, and the right hand on its notes where it was asked to stay. */
export function resolveTune(doc: Document, bars: readonly Bar[]): ResolvedTune {
  const findings: Finding[] = [];
  const written = fitTune(doc, bars, findings);
  const stays = doc.choices.passages.flatMap(({ start, end, stay }) =>
    stay && start < doc.song.length ? [{ start, end: Math.min(end, doc.song.length), stay }] : [],
  );
  const played = stays.length === 0 ? written : withStays(written, stays, doc.song.key, bars, KEYBOARDS[doc.hands.keys]);
  return { written, played, findings };
}

/** What is to be said of the chords as they were brought in or found. */
export function sayChords(doc: Document, chords: readonly HarmonisedChord[], bars: readonly Bar[]): Finding[] {
  const findings = chords
    .filter((c) => parseChord(c.symbol).kind === 'unread')
    .map((c) => {
      const message = `“${c.symbol}” at ${placeName(bars, c.at)} is kept as text: it names no chord to play.`;
      return finding('chord-unread', 'warn', c.at, message, [advice('write the chord in the usual way')]);
    });
  const suggested = chords.filter((c) => c.source === 'suggested').length;
  if (suggested > 0 && doc.song.chords.length === 0) {
    const message = `This song has no chords of its own: ${suggested === 1 ? 'one chord was' : `${suggested} chords were`} suggested for its tune.`;
    findings.push(finding('chords-suggested', 'note', null, message, []));
  }
  if (chords.length === 0) {
    const message = 'This song has no chord symbols, so the left hand rests. Write a chord into any bar to begin.';
    findings.push(finding('no-chords', 'warn', null, message, [advice('write a chord')]));
  }
  return findings;
}

function finding(
  rule: string,
  severity: Finding['severity'],
  at: number | null,
  message: string,
  fixes: readonly Fix[],
): Finding {
  return { rule, severity, at, part: null, chordAt: at, message, fixes };
}

const LONGER = [advice('choose a longer keyboard'), advice('choose another key')];

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
    findings.push(finding('tune-moved', 'warn', first.at, message, LONGER));
    return moved;
  }
  const message = `${first.pitch} at ${where} is not on a keyboard of ${keys}: such notes are written in the nearest octave that is.`;
  findings.push(finding('tune-folded', 'warn', first.at, message, LONGER));
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
