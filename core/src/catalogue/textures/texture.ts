import { TextureSchema, type Texture } from '../../song/texture-data.js';

/** A texture that comes with the application. */
export type ListedTexture = Texture & {
  /** Its place among all: of an energy the first is the one that plans take. */
  readonly order: number;
  /** What else pianists call it, for those who look for it by that. */
  readonly alsoCalled: string;
};

/**
 * A texture of the catalogue: its energy from 1, the quietest, to 5, and for each meter a row of tokens that divides its bars, "|" between
 * the bars of a longer one. What the tokens mean stands in `song/texture-data.ts`.
 */
export const texture = ({
  order,
  alsoCalled = '',
  patterns,
  ...own
}: {
  readonly id: string;
  readonly title: string;
  readonly energy: number;
  readonly order: number;
  readonly patterns: Readonly<Record<string, string>>;
  readonly alsoCalled?: string;
}): ListedTexture => ({
  ...TextureSchema.parse({ ...own, patterns: Object.entries(patterns).map(([meter, steps]) => ({ meter, steps })) }),
  order,
  alsoCalled,
});

/** The same row in every meter. */
export const everyMeter = (steps: string): Record<string, string> =>
  Object.fromEntries(['2/4', '3/4', '4/4', '5/4', '6/8', '9/8', '12/8'].map((meter) => [meter, steps]));
