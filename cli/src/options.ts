import { parseArgs } from 'node:util';
import { MOST_HARMONY, TEXTURES, WRITTEN } from '@joined-hands/core/fills';
import { parseKey, type Key, type Vocabulary } from '@joined-hands/core/harmony';
import {
  HAND_PROFILES,
  KEYBOARD_SIZES,
  PART_SIZES,
  SCHOOLS,
  type Choices,
  type Hands,
  type School,
} from '@joined-hands/core/song';
import { FORMATS, type Format } from '@joined-hands/core/formats';

/** Outputs the command can write, in the order in which they are written. */
export const OUTPUTS = ['json', 'musicxml', 'midi', 'abc', 'chordpro', 'chart', 'lesson', 'project'] as const;
export type Output = (typeof OUTPUTS)[number];

/** Textures by their names, and the left hand as the music brings it. */
const TEXTURE_NAMES = [...TEXTURES.map((t) => t.id), WRITTEN];

/** A command line that was understood. */
export interface Options {
  readonly input: string;
  readonly format: Format | null;
  readonly profile: Hands['profile'] | null;
  readonly keys: Hands['keys'] | null;
  readonly transpose: Key | null;
  readonly school: School | null;
  /** The accompaniment texture. */
  readonly texture: string | null;
  /** How long the parts are to be. */
  readonly size: Choices['partSize'] | null;
  /** How many notes a dominant seventh has. */
  readonly notes: 'three' | 'four' | null;
  /** How many notes of the tune in a hundred carry harmony. */
  readonly harmony: number | null;
  /** How the song closes. */
  readonly ending: ClosingOption | null;
  /** True where every part is to have the texture that a plan proposes for it. */
  readonly plan: boolean;
  /** Kinds of chord that may be suggested. */
  readonly vocabulary: Vocabulary | null;
  /** True where the file's own chords are to be put aside. */
  readonly stripChords: boolean;
  /** Number of a bar that is to be explained; null where none is. */
  readonly explain: number | null;
  readonly outputs: readonly { readonly kind: Output; readonly file: string }[];
}

/** Ways to close a song: the last chord suspended first, with a low octave, or rolled. */
const CLOSINGS = ['suspended', 'octave', 'rolled'] as const;
export type ClosingOption = (typeof CLOSINGS)[number];

/** A command line that was not: one sentence. */
export class WrongOption extends Error {}

const wrong = (sentence: string): never => {
  throw new WrongOption(sentence);
};

/** Names in lines of the help, as wide as its right column. */
function listed(names: readonly string[]): string {
  const rows: string[] = [''];
  for (const name of names) {
    const row = rows[rows.length - 1];
    if ((row + name).length > 58) rows.push(`${name}|`);
    else rows[rows.length - 1] = `${row}${name}|`;
  }
  return rows
    .map((r) => ' '.repeat(42) + r)
    .join('\n')
    .replace(/\|$/, '');
}

export const USAGE = `npm run -s arrange -- INPUT [options]

  --format abc|musicxml|midi|letters|chordpro|project
                                          input format (default: by the file's ending)
  --hands child|small|medium|large        hand profile (default: medium)
  --keys 49|61|76|88                      keyboard size (default: 88)
  --school NAME                           left-hand voicing school: close|root|two-note|shell|fifths|open|
                                          octave|single-bass|under-melody (default: close)
  --texture NAME                          accompaniment texture (default: block):
${listed(TEXTURE_NAMES)}
  --plan                                  the texture that is proposed for each part
  --size smaller|usual|larger             length of the parts (default: usual)
  --notes four|three                      notes of dominant sevenths (default: as the song's chords are)
  --harmony DENSITY                       notes of the melody in a hundred with harmony under them, 0 to 80
  --ending suspended|octave|rolled        how the song closes
  --strip-chords                          put the file's chords aside and suggest others
  --suggest triads|sevenths|rich          chords to suggest from (default: triads)
  --transpose KEY                         write it in another key, such as "Eb major"
  --explain BAR                           what each term costs in a bar, and for the nearest alternatives
  --json FILE  --musicxml FILE  --midi FILE  --abc FILE  --chordpro FILE  --chart FILE  --lesson FILE
  --project FILE                          outputs; - is standard output
`;

const SUGGESTED: readonly Vocabulary[] = ['triads', 'sevenths', 'rich'];

/** Reads the command line. Throws {@link WrongOption} with a sentence for the user. */
export function readOptions(args: readonly string[]): Options {
  const { values: given, positionals } = parse(args);
  const { 'strip-chords': stripChords, plan, ...texts } = given;
  const values: Record<string, string | undefined> = texts;
  if (positionals.length !== 1) wrong(positionals.length === 0 ? 'No input file is named.' : 'Name one input file only.');
  const choice = <T extends string>(name: string, allowed: readonly T[]): T | null => {
    const value = values[name];
    if (typeof value !== 'string') return null;
    return allowed.includes(value as T)
      ? (value as T)
      : wrong(`--${name} takes ${allowed.join(', ')}; "${value}" is none of them.`);
  };
  const keys = choice('keys', KEYBOARD_SIZES.map(String));
  const transpose = typeof values.transpose === 'string' ? parseKey(values.transpose) : null;
  if (typeof values.transpose === 'string' && transpose === null)
    wrong(`--transpose takes a key such as "Eb major"; "${values.transpose}" is none.`);
  const explain = typeof values.explain === 'string' ? Number(values.explain) : null;
  if (explain !== null && !(Number.isInteger(explain) && explain >= 0))
    wrong(`--explain takes the number of a bar, 0 for a pick-up; "${values.explain}" is none.`);
  const harmony = typeof values.harmony === 'string' ? Number(values.harmony) : null;
  if (harmony !== null && !(Number.isInteger(harmony) && harmony >= 0 && harmony <= MOST_HARMONY))
    wrong(`--harmony takes a number from 0 to ${MOST_HARMONY}; "${values.harmony}" is none.`);
  const outputs = OUTPUTS.flatMap((kind) => {
    const file = values[kind];
    return typeof file === 'string' ? [{ kind, file }] : [];
  });
  if (outputs.filter((o) => o.file === '-').length > 1) wrong('Only one output can go to standard output.');
  return {
    input: positionals[0],
    format: choice('format', FORMATS),
    profile: choice('hands', HAND_PROFILES),
    keys: keys === null ? null : (Number(keys) as Hands['keys']),
    transpose,
    school: choice('school', SCHOOLS),
    texture: choice('texture', TEXTURE_NAMES),
    size: choice('size', PART_SIZES),
    notes: choice('notes', ['four', 'three']),
    harmony,
    ending: choice('ending', CLOSINGS),
    plan: plan === true,
    vocabulary: choice('suggest', SUGGESTED),
    stripChords: stripChords === true,
    explain,
    outputs,
  };
}

function parse(args: readonly string[]) {
  const text = { type: 'string' } as const;
  try {
    return parseArgs({
      args: [...args],
      allowPositionals: true,
      options: {
        format: text,
        hands: text,
        keys: text,
        school: text,
        suggest: text,
        'strip-chords': { type: 'boolean' },
        texture: text,
        plan: { type: 'boolean' },
        size: text,
        notes: text,
        harmony: text,
        ending: text,
        transpose: text,
        explain: text,
        json: text,
        musicxml: text,
        midi: text,
        abc: text,
        chordpro: text,
        chart: text,
        lesson: text,
        project: text,
      },
    });
  } catch (error) {
    const sentence = error instanceof Error ? error.message.split('. ')[0] : String(error);
    return wrong(`${sentence.replace(/\.$/, '')}.`);
  }
}
