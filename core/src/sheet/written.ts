import type { Arrangement, Part, PartChord } from '../arrange/arrangement.js';
import type { DressedNote } from '../fills/dress.js';
import { WRITTEN } from '../fills/texture.js';
import type { writeMidi } from '../formats/midi/write.js';
import type { WrittenChord, WrittenScore } from '../formats/musicxml/write.js';
import { heardIn } from '../time/swing.js';

/** The arrangement as it is engraved: the tune, the chords under it and in the left hand, part numbers over the staff. */
export function writtenScore(arrangement: Arrangement): WrittenScore {
  const touches = new Map(arrangement.score.flatMap((n) => (n.hand === 'left' && n.touch ? [[n.at, n.touch] as const] : [])));
  return {
    song: arrangement.song,
    left: arrangement.parts.flatMap((p) => p.chords.flatMap(written)).map((c) => ({ ...c, touch: touches.get(c.at) })),
    under: arrangement.parts.flatMap(besideTune),
    parts: arrangement.parts.map((p) => ({ number: p.number, start: p.start })),
    pedal: arrangement.pedal,
    dynamics: arrangement.dynamics,
    tempo: arrangement.tempo,
    swing: arrangement.swing,
    reminders: arrangement.parts.flatMap((p) => p.reminders),
    fingers: new Map(arrangement.parts.flatMap((p) => p.melody.flatMap((n) => (n.finger ? [[n.at, n.finger] as const] : [])))),
    besideFingers: new Map(
      arrangement.parts.flatMap((p) => p.under.flatMap((u) => (u.written && !u.inner ? [[u.at, u.fingers] as const] : []))),
    ),
  };
}

/** What of an arrangement is written to a MIDI file, as its writer takes it. */
export const midiScore = (arrangement: Arrangement): Parameters<typeof writeMidi> => [
  arrangement.song,
  arrangement.score,
  arrangement.pedal,
  arrangement.tempo,
  heardIn(arrangement),
  arrangement.parts.flatMap((p) => p.reminders),
];

/** What the right hand plays beside the tune of a part, in order: harmony, fills, or its chords where the tune is sung. */
function besideTune({ under, fills, sung, interludes }: Part): WrittenChord[] {
  return [
    ...under.flatMap(({ at, length, pitches, fingers, written: inTune, inner }): WrittenChord[] => {
      const shown = inner ? fingers.filter((f) => f !== null) : [];
      return inTune && !inner ? [] : [{ at, length, pitches, fingers: shown, rolled: false }];
    }),
    ...fills.map(({ at, length, pitch, finger }) => ({
      at,
      length,
      pitches: [pitch],
      fingers: finger ? [finger] : [],
      rolled: false,
    })),
    ...[...sung, ...interludes].map(({ at, length, pitches, fingers }) => ({ at, length, pitches, fingers, rolled: false })),
  ].sort((a, b) => a.at - b.at);
}

/** A broken chord is written as its low note, then the rest; a rolled one with the sign for it. */
function written(chord: PartChord): WrittenChord[] {
  const { at, length, pitches, fingers, spread, struck, dressed } = chord;
  if (dressed) return attacks(dressed.notes, dressed.fingers, dressed.texture === WRITTEN);
  if (spread !== 'broken') return [{ at, length, pitches, fingers, rolled: spread === 'rolled' }];
  const [low, next] = struck;
  return [
    { at, length: next.at - at, pitches: [low.pitch], fingers: fingers.slice(0, 1), rolled: false },
    { at: next.at, length: at + length - next.at, pitches: pitches.slice(1), fingers: fingers.slice(1), rolled: false },
  ];
}

/** The notes of a texture, those of one moment together; of a written left hand those of one moment that are held as long. */
function attacks(notes: readonly DressedNote[], fingers: readonly number[], byLength: boolean): WrittenChord[] {
  type Moment = WrittenChord & { readonly pitches: string[]; readonly fingers: number[]; readonly graces: string[] };
  const moments = new Map<string, Moment>();
  notes.forEach(({ at, length, pitch, graces = [] }, i) => {
    const key = byLength ? `${at} ${length}` : `${at}`;
    const moment = moments.get(key) ?? { at, length, pitches: [], fingers: [], rolled: false, graces: [] };
    moment.graces.push(...graces);
    moment.pitches.push(pitch);
    moment.fingers.push(fingers[i]);
    moments.set(key, moment);
  });
  return [...moments.values()];
}
