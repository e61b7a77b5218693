import * as z from 'zod';
import '../zod.js';
import { TextureSchema, type Texture } from '../song/texture-data.js';

/** A file of textures, for another song or another player. */
const TextureFile = z.object({
  format: z.literal('joined-hands-figures'),
  version: z.literal(1),
  figures: z.array(TextureSchema).min(1).max(100),
});

/** Writes textures as a JSON file. */
export function writeTextures(textures: readonly Texture[]): string {
  return `${JSON.stringify({ format: 'joined-hands-figures', version: 1, figures: textures.map((t) => TextureSchema.parse(t)) }, null, 2)}\n`;
}

/** Why a file of textures is refused; its textures are counted from 1. */
export type TexturesFault =
  | { readonly code: 'textures.not-json' }
  | { readonly code: 'textures.none' }
  | { readonly code: 'textures.damaged'; readonly number: number; readonly field: string };

export type ReadTextures =
  { readonly ok: true; readonly textures: readonly Texture[] } | { readonly ok: false; readonly fault: TexturesFault };

/** Reads a file of textures; one that is not, or holds a pattern that cannot be, is refused with its place. */
export function readTextures(text: string): ReadTextures {
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch {
    return { ok: false, fault: { code: 'textures.not-json' } };
  }
  const read = TextureFile.safeParse(data);
  if (read.success) return { ok: true, textures: read.data.figures };
  const [issue] = read.error.issues;
  const [list, index, ...rest] = issue.path;
  if (list !== 'figures' || typeof index !== 'number') return { ok: false, fault: { code: 'textures.none' } };
  const field = rest.filter((p) => typeof p === 'string').join(', ');
  return { ok: false, fault: { code: 'textures.damaged', number: index + 1, field } };
}
