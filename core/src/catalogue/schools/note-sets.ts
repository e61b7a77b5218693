import type { Chord, ChordTone } from '../../harmony/symbol.js';
import type { NoteSet } from './shape-pattern.js';
import type { Form } from './thinned.js';
import { byDegree, fifthOf, rootOf, seventhOf, thirdOf } from './tones.js';

/** The note sets a chord may be played with, fullest first; at most four notes. */
export function noteSets(chord: Chord): NoteSet[] {
  const sets: NoteSet[] = [];
  const add = (form: Form, tones: readonly ChordTone[]) => {
    const names = [...new Set(tones.map((t) => t.name))];
    if (names.length === 0 || sets.some((s) => s.names.join() === names.join())) return;
    sets.push({ form, names });
  };
  const [root, third, fifth, seventh] = [rootOf(chord), thirdOf(chord), fifthOf(chord), seventhOf(chord)];
  const tensions = byDegree(chord, 13, 11, 9);
  if (chord.tones.length <= 4) add('full', chord.tones);
  else {
    const top = tensions.slice(0, 1);
    add('no-fifth', [...root, ...third, ...seventh, ...top]);
    if (third.length > 0 && seventh.length > 0) {
      const second = tensions.slice(1, 2);
      add('rootless', [...third, ...(second.length ? second : fifth), ...seventh, ...top]);
    }
  }
  if (seventh.length > 0) {
    add('no-fifth', [...root, ...third, ...seventh]);
    add('two-note', [...third, ...seventh]);
    add('two-note', [...root, ...seventh]);
  } else if (tensions.length > 0 && chord.tones.length <= 4) add('no-fifth', [...root, ...third, ...tensions]);
  if (third.length > 0) add('two-note', [...root, ...third]);
  else add('two-note', [...root, ...fifth]);
  add('one-note', root);
  return sets;
}
