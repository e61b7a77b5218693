import type { Leaps } from '../measures.js';
import { attribute, type XmlNode } from './xml.js';

/** The signs of a measure that send the player elsewhere, while it is read. */
export type OpenLeaps = { -readonly [K in keyof Leaps]: Leaps[K] };

/** Takes up where a sound element sends the player, or is sent to. */
export function soundLeaps(sound: XmlNode | undefined, leaps: OpenLeaps): void {
  if (!sound) return;
  const has = (name: string) => attribute(sound, name) !== undefined;
  if (has('segno')) leaps.sign = true;
  if (has('coda')) leaps.coda = true;
  if (has('fine')) leaps.fine = true;
  if (has('tocoda')) leaps.toCoda = true;
  if (has('dacapo') || has('dalsegno'))
    leaps.jump = { from: has('dacapo') ? 'start' : 'sign', until: leaps.jump?.until ?? 'end' };
}

/** Takes up "D.C. al Fine" and its sisters. True where words send the player elsewhere. */
export function wordLeaps(words: string, leaps: OpenLeaps): boolean {
  const jump = /^(d\.? ?c\.?|da capo|d\.? ?s\.?|dal segno)\b\.?(?: al (fine|coda))?/i.exec(words);
  if (jump) {
    const until = (jump[2]?.toLowerCase() ?? leaps.jump?.until ?? 'end') as 'end' | 'fine' | 'coda';
    leaps.jump = { from: /^(d\.? ?c|da)/i.test(jump[1]) && !/^dal/i.test(jump[1]) ? 'start' : 'sign', until };
    return true;
  }
  if (/^fine\.?$/i.test(words)) leaps.fine = true;
  else if (/^to coda/i.test(words)) leaps.toCoda = true;
  else if (/^coda\b/i.test(words)) leaps.coda = true;
  else return false;
  return true;
}
