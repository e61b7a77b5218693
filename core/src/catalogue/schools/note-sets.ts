import type { Chord, ChordTone } from '../../harmony/symbol.js';
import type { NoteSet } from './shape-pattern.js';
import type { Form } from './thinned.js';
import { byDegree, fifthOf, rootOf, seventhOf, thirdOf } from './tones.js';

/** Fewest notes that a form is made of. */
const LEAST_NOTES: Readonly<Record<Form, number>> = { full: 1, 'no-fifth': 2, rootless: 2, 'two-note': 2, 'one-note': 1 };

type AddSet = (form: Form, tones: readonly ChordTone[], inOrder?: boolean) => void;

/**
 * A ninth, eleventh or thirteenth chord is spread, so that no three notes of it lie side by side: without its root, the third or the
 * seventh at the bottom and the tension over it, or in root position with its ninth on top for a hand that reaches so far.
 */
function spreadTensions(chord: Chord, add: AddSet): void {
  const [root, third, fifth, seventh] = [rootOf(chord), thirdOf(chord), fifthOf(chord), seventhOf(chord)];
  const [ninth, eleventh, thirteenth] = [9, 11, 13].map((degree) => byDegree(chord, degree));
  const form = ninth.length > 0 ? 'rootless' : 'no-fifth';
  const upper = ninth.length > 0 ? ninth : root;
  if (third.length === 0) {
    add(form, [...fifth, ...seventh, ...upper, ...eleventh], true);
    add(form, [...seventh, ...upper, ...eleventh, ...fifth], true);
    return;
  }
  if (eleventh.length > 0 && thirteenth.length === 0) {
    // Beside its third an eleventh would lie a second away: it goes on top.
    add('rootless', [...seventh, ...third, ...eleventh], true);
    add(form, [...third, ...seventh, ...upper, ...eleventh], true);
    return;
  }
  const inner = thirteenth.length > 0 ? thirteenth : fifth;
  add(form, [...third, ...inner, ...seventh, ...upper], true);
  add(form, [...seventh, ...upper, ...third, ...inner], true);
  if (ninth.length > 0) add('no-fifth', [...root, ...third, ...seventh, ...ninth], true);
}

/** The note sets a chord may be played with, fullest first; at most four notes. */
export function noteSets(chord: Chord): NoteSet[] {
  const sets: NoteSet[] = [];
  const add = (form: Form, tones: readonly ChordTone[], inOrder = false) => {
    const names = [...new Set(tones.map((t) => t.name))];
    if (names.length < LEAST_NOTES[form] || sets.some((s) => s.names.join() === names.join())) return;
    sets.push(inOrder ? { form, names, inOrder } : { form, names });
  };
  const [root, third, fifth, seventh] = [rootOf(chord), thirdOf(chord), fifthOf(chord), seventhOf(chord)];
  const tensions = byDegree(chord, 13, 11, 9);
  if (chord.tones.length <= 4) add('full', chord.tones);
  else spreadTensions(chord, add);
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
