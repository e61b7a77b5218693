import { describe, expect, it } from 'vitest';
import { fileName } from '../platform/download';
import { signRuns } from './sign-runs';

const shown = (text: string) =>
  signRuns(text)
    .map((r) => r.text)
    .join('');

describe('musical signs', () => {
  it.each([
    ['Bb', 'B♭'],
    ['F#m7b5', 'F♯m7♭5'],
    ['Bbmaj7/Ab', 'B♭maj7/A♭'],
    ['E7#9', 'E7♯9'],
    ['Eb G C', 'E♭ G C'],
    ['G minor', 'G minor'],
    ['D and F stay; Bb falls', 'D and F stay; B♭ falls'],
    ['Absent', 'Absent'],
  ])('%s is shown as %s', (text, expected) => expect(shown(text)).toBe(expected));
});

describe('file names', () => {
  it('are plain and never empty', () => {
    expect(fileName('Lamps Across the Sound!')).toBe('lamps-across-the-sound');
    expect(fileName('…')).toBe('song');
  });
});
