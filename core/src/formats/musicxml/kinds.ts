import { parseChord, plainSigns } from '../../harmony/symbol.js';
import { noteName, simpleName } from '../../pitch/pitch.js';
import { refuse } from '../result.js';
import { attribute, child, children, number, text, type XmlNode } from './xml.js';

/** Symbols for MusicXML's own chord kinds, for scores that carry no text. */
const KIND_SUFFIX: Record<string, string> = {
  major: '',
  minor: 'm',
  augmented: 'aug',
  diminished: 'dim',
  dominant: '7',
  'major-seventh': 'maj7',
  'minor-seventh': 'm7',
  'diminished-seventh': 'dim7',
  'augmented-seventh': '7#5',
  'half-diminished': 'm7b5',
  'major-minor': 'mMaj7',
  'major-sixth': '6',
  'minor-sixth': 'm6',
  'dominant-ninth': '9',
  'major-ninth': 'maj9',
  'minor-ninth': 'm9',
  'dominant-11th': '11',
  'major-11th': 'maj11',
  'minor-11th': 'm11',
  'dominant-13th': '13',
  'major-13th': 'maj13',
  'minor-13th': 'm13',
  'suspended-second': 'sus2',
  'suspended-fourth': 'sus4',
  power: '5',
};

/** The chord symbol of a `<harmony>`, in the way lead sheets write it. */
export function harmonyText(node: XmlNode, measure: string): string {
  const kind = child(node, 'kind');
  const kindName = (text(kind) ?? 'major').trim();
  if (kindName === 'none') return 'N.C.';
  const root = stepName(child(node, 'root'), 'root', measure) ?? 'C';
  const bass = stepName(child(node, 'bass'), 'bass', measure);
  const written = plainSigns(attribute(kind, 'text') ?? '').trim();
  // A root that is not shown: all that stands on the page is the text.
  const rootText = attribute(child(child(node, 'root'), 'root-step'), 'text');
  if (rootText === '' && kindName === 'other' && written) return written;
  const known = KIND_SUFFIX[kindName];
  const degrees = children(node, 'degree').map(degreeText).join('');
  const slash = bass ? `/${bass}` : '';
  if (known !== undefined && written && sameNotes(`${root}${written}`, `${root}${known}`)) return `${root}${written}${slash}`;
  if (kindName === 'other' && written) return `${root}${written}${slash}`;
  // Kinds that no lead sheet writes, such as the Neapolitan, are kept as words.
  if (known === undefined) return `${root} ${written || kindName}${slash}`;
  return `${root}${known}${degrees}${slash}`;
}

/** True where two symbols ask for the same notes, so that the written spelling can stay. */
function sameNotes(a: string, b: string): boolean {
  const [x, y] = [parseChord(a), parseChord(b)];
  return x.kind === 'chord' && y.kind === 'chord' && x.tones.map((t) => t.name).join() === y.tones.map((t) => t.name).join();
}

function degreeText(node: XmlNode): string {
  const value = number(node, 'degree-value') ?? 0;
  const alter = number(node, 'degree-alter') ?? 0;
  const type = text(node, 'degree-type') ?? 'alter';
  const sign = alter < 0 ? 'b' : alter > 0 ? '#' : '';
  if (type === 'subtract') return `(no${value})`;
  return type === 'add' && !sign ? `(add${value})` : `(${sign}${value})`;
}

/** The root or bass of a chord; a double sharp or flat is written as the simple note. */
function stepName(node: XmlNode | undefined, which: 'root' | 'bass', measure: string): string | null {
  const step = (text(node, `${which}-step`) ?? '').trim();
  const letter = step.length === 1 ? 'CDEFGAB'.indexOf(step) : -1;
  if (letter < 0) return null;
  const alter = Math.round(number(node, `${which}-alter`) ?? 0);
  if (Math.abs(alter) > 2)
    return refuse([{ measure }], { code: 'chord.altered', note: which, semitones: Math.abs(alter) }, 'correct-chord');
  return Math.abs(alter) < 2 ? noteName(letter, alter) : simpleName(noteName(letter, alter));
}
