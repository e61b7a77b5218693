import { z } from '../zod.js';
import { TextureSchema, type Texture } from '../song/texture-data.js';

/** A file of textures, for another song or another player. */
const TextureFile = z.object({
  format: z.literal('joined-hands-figures'),
  version: z.literal(1),
  figures: z.array(TextureSchema).min(1).max(100),
});

/** Writes textures as a JSON file. */
export function writeTextures(textures: readonly Texture[]): string {
  return `${JSON.stringify({ format: 'joined-hands-figures', version: 1, figures: textures }, null, 2)}\n`;
}

export type ReadTextures =
  { readonly ok: true; readonly textures: readonly Texture[] } | { readonly ok: false; readonly sentence: string };

/** Reads a file of textures; one that is not, or holds a pattern that cannot be, is refused with its place. */
export function readTextures(text: string): ReadTextures {
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch {
    return { ok: false, sentence: 'This file is not JSON. Choose a file of figures that was saved here.' };
  }
  const read = TextureFile.safeParse(data);
  if (read.success) return { ok: true, textures: read.data.figures };
  const [issue] = read.error.issues;
  const [list, index, ...rest] = issue.path;
  if (list !== 'figures' || typeof index !== 'number')
    return { ok: false, sentence: 'This file holds no figures. Choose a file of figures that was saved here.' };
  const where = [`figure ${index + 1}`, ...rest.filter((p) => typeof p === 'string')].join(', ');
  return { ok: false, sentence: `The file is refused at ${where}: ${issue.message}. Nothing was changed.` };
}
