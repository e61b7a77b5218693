import { decodeText } from '../text.js';

/** Text of a MIDI file, whose package takes every byte for a letter, as it was meant: UTF-8 where it is that, else Western European. */
export function fromBytes(text: string): string {
  return /[\u0080-\u00ff]/.test(text) ? decodeText(Uint8Array.from(text, (c) => c.charCodeAt(0) & 0xff)) : text;
}

/** Text as bytes of UTF-8, each of which the package writes as a letter. */
export function toBytes(text: string): string {
  return Array.from(new TextEncoder().encode(text), (byte) => String.fromCharCode(byte)).join('');
}
