import { TextureSchema, barsOf, type Texture } from '../song/texture-data.js';
import { meterName, type Meter } from '../time/meter.js';

/** The tokens of a texture in a meter, bar by bar; null where it has no pattern for that meter. */
export function patternFor(texture: Texture, meter: Meter): readonly (readonly string[])[] | null {
  const name = meterName(meter);
  const pattern = texture.patterns.find((p) => p.meter === name);
  return pattern ? barsOf(pattern.steps) : null;
}

const texture = (id: string, title: string, energy: number, patterns: Record<string, string>): Texture =>
  TextureSchema.parse({ id, title, energy, patterns: Object.entries(patterns).map(([meter, steps]) => ({ meter, steps })) });

/** The plain block chords: each chord struck where it begins and at each bar line, as the left hand voices it. */
const PLAIN = 'block';

/** Block chords that are held over the bar lines for as long as they last. */
export const HELD = 'held-block';

/** A part that is left to the player: it stands in plain chords, and a texture is only named for it. */
export const FREE = 'free';

/** True where the left hand plays its chords as they are voiced. */
export const isPlain = (texture: string): boolean => texture === PLAIN || texture === HELD || texture === FREE;

const everyMeter = (steps: string): Record<string, string> =>
  Object.fromEntries(['2/4', '3/4', '4/4', '5/4', '6/8', '9/8', '12/8'].map((meter) => [meter, steps]));

/** The textures that come with the application, the quietest first. */
export const TEXTURES: readonly Texture[] = [
  texture(PLAIN, 'block chords', 1, everyMeter('c')),
  texture(HELD, 'held block chords', 1, everyMeter('c')),
  texture('long-bass', 'long bass', 1, everyMeter('1')),
  texture('open-tenth', 'open one, five, ten', 2, {
    '2/4': '1 5 10 -',
    '3/4': '1 5 10',
    '4/4': '1 5 10 -',
    '5/4': '1 5 10 - 5',
    '6/8': '1 - 5 - 10 -',
    '9/8': '1 - - 5 - - 10 - -',
    '12/8': '1 - - 5 - - 10 - - - - -',
  }),
  texture('counted-block', 'a chord on every beat', 2, {
    '2/4': 'c c',
    '3/4': 'c c c',
    '4/4': 'c c c c',
    '5/4': 'c c c c c',
    '6/8': 'c - - c - -',
    '9/8': 'c - - c - - c - -',
    '12/8': 'c - - c - - c - - c - -',
  }),
  texture('bass-chord', 'bass, then chord', 2, {
    '2/4': '1 u',
    '3/4': '1 u -',
    '4/4': '1 - u -',
    '5/4': '1 - - u -',
    '6/8': '1 - - u - -',
    '9/8': '1 - - u - - - - -',
    '12/8': '1 - - u - - 1 - - u - -',
  }),
  texture('pedal-note', 'pedal note under the chords', 2, {
    '2/4': 'p u',
    '3/4': 'p u -',
    '4/4': 'p - u -',
    '5/4': 'p - - u -',
    '6/8': 'p - - u - -',
    '9/8': 'p - - u - - u - -',
    '12/8': 'p - - u - - p - - u - -',
  }),
  texture('bass-chord-chord', 'bass, chord, chord', 3, {
    '3/4': '1 u u',
    '4/4': '1 u u u',
    '5/4': '1 u u 1 u',
    '6/8': '1 u u 1 u u',
    '9/8': '1 - - u - - u - -',
    '12/8': '1 u u 1 u u 1 u u 1 u u',
  }),
  texture('alternating-bass', 'alternating bass', 3, {
    '2/4': '1 u 5, u',
    '3/4': '1 u u | 5, u u',
    '4/4': '1 u 5, u',
    '6/8': '1 u u 5, u u',
    '12/8': '1 u u 1 u u 5, u u 5, u u',
  }),
  texture('step-line', 'walking bass', 3, {
    '2/4': '1 w',
    '3/4': '1 u w',
    '4/4': '1 - u w',
    '6/8': '1 - - u - w',
  }),
  texture('octave-bass', 'octave bass, up and down', 3, {
    '2/4': '1 8',
    '3/4': '1 8 8',
    '4/4': '1 8 1 8',
    '6/8': '1 - 8 1 - 8',
    '12/8': '1 - 8 1 - 8 1 - 8 1 - 8',
  }),
  texture('broken-triad', 'broken triad', 3, {
    '2/4': '1 5 3 5',
    '3/4': '1 5 3 5 3 5',
    '4/4': '1 5 3 5 1 5 3 5',
    '6/8': '1 3 5 8 5 3',
    '9/8': '1 3 5 8 5 3 8 5 3',
    '12/8': '1 3 5 8 5 3 1 3 5 8 5 3',
  }),
  texture('one-five-eight', 'one, five, eight, five', 3, {
    '2/4': '1 5 8 5',
    '3/4': '1 5 8 5 8 5',
    '4/4': '1 5 8 5 1 5 8 5',
    '6/8': '1 5 8 8 5 5',
    '12/8': '1 5 8 8 5 5 1 5 8 8 5 5',
  }),
  texture('rise-and-fall', 'one, five, eight, ten and back', 4, {
    '2/4': '1 5 8 10',
    '3/4': '1 5 8 10 8 5',
    '4/4': '1 5 8 10 - 10 8 5',
    '6/8': '1 5 8 10 8 5',
    '9/8': '1 5 8 10 8 5 8 10 8',
    '12/8': '1 5 8 10 8 5 1 5 8 10 8 5',
  }),
  texture('long-roll', 'rolling over two octaves', 4, {
    '3/4': '1 5 9 10 9 5',
    '4/4': '1 5 9 10 12 14 12 10',
    '6/8': '1 5 9 10 9 5',
    '12/8': '1 5 9 10 12 14 12 10 9 5 9 5',
  }),
  texture('leaping', 'leaping one, five, chord, eight', 4, {
    '2/4': '1 5 3+5 8',
    '3/4': '1 5 3+5 8 3+5 8',
    '4/4': '1 5 3+5 8 1 5 3+5 8',
    '6/8': '1 - 5 3+5 - 8',
  }),
  texture('pushed-bass', 'pushed bass of two bars', 5, {
    '4/4': '1 - - 1 - - 5, - | 1 - - 1 - 5, - 5',
    '2/4': '1 - - 1 | - 5, - 5',
  }),
];

/** A texture by its name, the pianist's own before those that come with the application. */
export function textureNamed(id: string, own: readonly Texture[] = []): Texture | null {
  return own.find((t) => t.id === id) ?? TEXTURES.find((t) => t.id === id) ?? null;
}
