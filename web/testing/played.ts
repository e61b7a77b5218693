/** A pass of the first part, before it is kept. */
export const PLAYED = {
  song: 'one',
  title: 'Song',
  step: 'right:1',
  kind: 'right' as const,
  parts: '1',
  hands: 'right' as const,
  tempo: 60,
  goal: 90,
  figures: null,
  clean: true,
  seconds: 40,
};
