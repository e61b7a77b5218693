import type { OpenFault } from './open.js';
import { ENGLISH } from '../words/index.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  DIVISIONS,
  known,
  knownAbc,
  knownMidi,
  knownTunes,
  knownXml,
  RESOLUTIONS,
  type KnownTune,
  type XmlStyle,
} from '../../testing/known-files.js';
import { midiOf } from '../pitch/pitch.js';
import { openFile, type Format } from './index.js';

const sentenceOf = ({ name, fault }: { name: string; fault: OpenFault }): string => `${name}: ${ENGLISH.fact(fault)}`;

const RUNS = { numRuns: 1000, seed: 1127 };

/** The notes and the title of a file; what is refused fails with its sentence. */
function found(format: Format, data: Uint8Array): { notes: string[]; title: string } {
  const opened = openFile(`file.${format}`, data, format);
  if (!opened.ok) throw new Error(sentenceOf(opened));
  const { melody, title } = opened.document.song;
  return { notes: melody.map((n) => `${n.at} ${n.length} ${n.pitch}`), title };
}

/** Keys in place of names, for files that do not spell. */
const asKeys = (notes: readonly string[]): string[] => notes.map((n) => n.replace(/\S+$/, (pitch) => `${midiOf(pitch)}`));

/** Lengths that stay distinct in a number of divisions, or are named by a note value or lie near enough to be known. */
const fitting = ({ divisions, types }: Pick<XmlStyle, 'divisions' | 'types'>) => {
  const enough = types ? 24 : 240;
  return (over: number, under: number) => Number.isInteger((over / under) * divisions) || divisions >= enough;
};

const styles: fc.Arbitrary<XmlStyle> = fc.record({
  divisions: fc.constantFrom(...DIVISIONS),
  types: fc.boolean(),
  rounding: fc.constantFrom('places' as const, 'lengths' as const),
  staves: fc.constantFrom(1 as const, 2 as const),
  lowerFirst: fc.boolean(),
  latin: fc.boolean(),
});

describe('valid files of other programs are read as they were meant', () => {
  it('MusicXML with any divisions, one staff or two, whichever stands first, resting at first', () => {
    const files = styles.chain((style) => knownTunes(fitting(style)).map((tune) => ({ style, tune })));
    fc.assert(
      fc.property(files, ({ style, tune }) => {
        const latin = style.latin && [...tune.title].every((c) => c.charCodeAt(0) < 256);
        expect(found('musicxml', knownXml(tune, { ...style, latin }))).toEqual({ notes: known(tune), title: tune.title });
      }),
      RUNS,
    );
  });

  it('MIDI with running status and names in UTF-8', () => {
    fc.assert(
      fc.property(
        knownTunes(),
        fc.constantFrom(...RESOLUTIONS),
        fc.constantFrom('note-off' as const, 'silent note-on' as const),
        (tune, ppq, ends) => {
          const { notes, title } = found('midi', knownMidi(tune, ppq, ends));
          expect([asKeys(notes), title]).toEqual([asKeys(known(tune)), tune.title]);
        },
      ),
      RUNS,
    );
  });

  it('ABC in UTF-8 and Latin-1', () => {
    fc.assert(
      fc.property(knownTunes(), fc.boolean(), (tune: KnownTune, wished) => {
        const latin = wished && [...tune.title].every((c) => c.charCodeAt(0) < 256);
        expect(found('abc', knownAbc(tune, latin))).toEqual({ notes: known(tune), title: tune.title });
      }),
      RUNS,
    );
  });
});
