import { arrange } from '@joined-hands/core/arrange';
import { ENGLISH } from '@joined-hands/core/words';
import { describe, expect, it } from 'vitest';
import { demo } from '../../../../../core/testing/songs';
import { spokenJoin, spokenPart } from './spoken';

const { parts, bars } = arrange(demo('lamps-across-the-sound.letters'));

describe('what is read aloud on the desk', () => {
  it('tells of a chord where it falls, with which note, how it lies and on which keys', () => {
    const [, part] = parts;
    expect(spokenJoin(part, bars, part.chords[0].at, ENGLISH)).toBe(
      'Bar 5: Eb5 with C minor on 1, on the first syllable of “leaning”. First inversion, Eb3, G3, C4.',
    );
    for (const p of parts)
      for (const { at, pitches } of p.chords) expect(spokenJoin(p, bars, at, ENGLISH)).toContain(pitches.join(', '));
  });

  it('is silent where there is no chord', () => {
    expect(spokenJoin(parts[0], bars, -1, ENGLISH)).toBe('');
  });

  it('tells of a part what there is in it', () => {
    const [first] = parts;
    expect(spokenPart(first, ENGLISH)).toBe('Part 1, Bars 1–4: 8 notes, 4 chords.');
    expect(spokenPart({ ...first, chords: first.chords.slice(0, 1) }, ENGLISH)).toContain('1 chord.');
  });
});
