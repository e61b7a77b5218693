import { loudnessOf, type LoudStretch } from '../fills/dynamics.js';
import { touchedLoudness } from '../song/touch.js';
import type { Touch } from '../song/decisions.js';
import type { Part, PartChord, ScoreNote } from './arrangement.js';
import { stretchAt, type Settings } from './settings.js';

type Note = Omit<ScoreNote, 'loudness' | 'part'>;

/** Every note of both hands in order, with its finger and how loud it is; `loud` tells each part's loudness. */
export function scoreOf(settings: Settings, parts: readonly Part[], loud: readonly LoudStretch[]): ScoreNote[] {
  const { plays, playMode, balance } = settings;
  const withTune = plays.tune && playMode !== 'sing-along';
  return parts.flatMap((part, i) =>
    [
      ...rightNotes(part, withTune),
      ...part.chords.flatMap((c) => withTouch(leftNotes(c), stretchAt(settings, c.writtenAt).touch)),
    ]
      .sort((a, b) => a.at - b.at || (a.hand === b.hand ? 0 : a.hand === 'right' ? -1 : 1))
      .map((n) => ({ ...n, part: part.number }))
      .map((n) => ({ ...n, loudness: touchedLoudness(loudnessOf(n, loud[i], balance), n.touch) })),
  );
}

/** The chords of an accompaniment under their touch; what is a bass is held. */
const withTouch = (notes: readonly Note[], touch: Touch): readonly Note[] =>
  touch === 'held' ? notes : notes.map((n) => (n.role === 'chord' ? { ...n, touch } : n));

function rightNotes(part: Part, withTune: boolean): Note[] {
  const hand = 'right';
  return [
    ...(withTune ? part.melody : []).map(({ at, length, pitch, finger, graces }): Note => ({
      hand,
      at,
      length,
      pitch,
      finger,
      role: 'melody',
      ...(graces ? { graces } : {}),
    })),
    ...[...part.sung, ...part.interludes].flatMap(({ at, length, pitches, fingers }) =>
      pitches.map((pitch, k): Note => ({ hand, at, length, pitch, finger: fingers[k], role: 'chord' })),
    ),
    ...part.fills.map(({ at, length, pitch, finger }): Note => ({ hand, at, length, pitch, finger, role: 'fill' })),
    ...part.under.flatMap(({ at, length, pitches, fingers, written }) =>
      (written && !withTune ? [] : pitches).map((pitch, k): Note => ({
        hand,
        at,
        length,
        pitch,
        finger: fingers[k],
        role: 'harmony',
      })),
    ),
  ];
}

function leftNotes({ form, school, struck, fingers, dressed }: PartChord): Note[] {
  if (dressed) return dressed.notes.map((n, k) => ({ ...n, hand: 'left', finger: dressed.fingers[k] ?? null }));
  const role = form === 'one-note' || school === 'octave' || school === 'under-melody' ? 'bass' : 'chord';
  return struck.map(({ at, length, pitch }, k) => ({ hand: 'left', at, length, pitch, finger: fingers[k] ?? null, role }));
}
