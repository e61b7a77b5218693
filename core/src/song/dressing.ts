import { firstAtOrAfter } from '../time/bars.js';
import type { Ticks } from '../time/ticks.js';
import type { Choices, Document, FillKind, Layer } from './decisions.js';
import { withChoices } from './edits.js';
import type { Texture } from './texture-data.js';

/** Keeps a fill where the tune leaves room, refuses fills there ("none"), or leaves it undecided (null). */
export function setFill(doc: Document, at: Ticks, kind: FillKind | null): Document {
  const others = doc.choices.fills.filter((f) => f.at !== at);
  if (kind === null) return withChoices(doc, { fills: others });
  others.splice(firstAtOrAfter(others, at), 0, { at, kind });
  return withChoices(doc, { fills: others });
}

/** How much softer than the tune the accompaniment is, in percent from 0 to 80. */
export function setBalance(doc: Document, balance: number): Document {
  return withChoices(doc, { balance: Math.round(Math.min(80, Math.max(0, balance))) });
}

/** How the song ends: how much slower, in percent from 0 to 60, and how its last chord is struck. */
export function setClose(doc: Document, change: Partial<Choices['close']>): Document {
  return withChoices(doc, { close: { ...doc.choices.close, ...change } });
}

/** Silences a layer, or lets it be heard again. */
export function muteLayer(doc: Document, layer: Layer, muted: boolean): Document {
  const others = doc.choices.muted.filter((l) => l !== layer);
  return withChoices(doc, { muted: muted ? [...others, layer] : others });
}

/** How the song is played: as arranged, in outline, or as an accompaniment to a voice. */
export function setPlayMode(doc: Document, playMode: Choices['playMode']): Document {
  return withChoices(doc, { playMode });
}

/** Keeps a texture of the pianist's own; one of the same name is replaced wherever it is used. */
export function saveTexture(doc: Document, texture: Texture): Document {
  const others = doc.choices.textures.filter((t) => t.id !== texture.id);
  return withChoices(doc, { textures: [...others, texture] });
}

/** Puts a texture of the pianist's own away; where it was used the plain chords come back. */
export function removeTexture(doc: Document, id: string): Document {
  const { textures, texture, passages } = doc.choices;
  return withChoices(doc, {
    textures: textures.filter((t) => t.id !== id),
    texture: texture === id ? 'block' : texture,
    passages: passages.map(({ texture: used, ...p }) => (used && used !== id ? { ...p, texture: used } : p)),
  });
}
