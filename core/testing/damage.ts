import fc from 'fast-check';
import { strFromU8, strToU8 } from 'fflate';

/** Damages a file of one format where it hurts: a number, a tag, an event, a line, not just any byte. */
export type Damage = (data: Uint8Array, dice: Dice) => Uint8Array;

/** Choices of a damage, repeatable from their seed. */
export class Dice {
  constructor(private state: number) {}

  /** A whole number from 0 up to, but not including, `n`. */
  roll(n: number): number {
    this.state = (Math.imul(this.state ^ (this.state >>> 15), 0x2c1b3c6d) + 0x9e3779b9) >>> 0;
    const mixed = Math.imul(this.state ^ (this.state >>> 12), 0x297a2d39) >>> 0;
    return n <= 0 ? 0 : ((mixed ^ (mixed >>> 15)) >>> 0) % n;
  }

  pick<T>(of: readonly T[]): T {
    return of[this.roll(of.length)];
  }
}

export const dice: fc.Arbitrary<Dice> = fc.integer({ min: 1, max: 2 ** 31 - 1 }).map((seed) => new Dice(seed));

const NUMBERS = ['-1', '0', '1.5', '99999', '1e9', '1e308', '-0', 'NaN', '4294967296', '0x10', '', ' ', '007'];
const WORDS = ['C', 'H', 'x', '&#39;', '&bogus;', '%', '\\', '"', '<', '|', '\u0000', '𝄞', 'é'];
const VALUES: readonly unknown[] = [null, -1, 0, 1.5, 1e10, 1e308, '', 'x'.repeat(500), [], {}, true, 'C99', '%\n', [null], NaN];

/** Text cut at what matches, the pieces between and the matches in turn. */
function cut(text: string, at: RegExp): string[] {
  return text.split(at);
}

function damageText(text: string, at: RegExp, { roll, pick }: Pick<Dice, 'roll' | 'pick'>, glue = ''): string {
  const pieces = cut(text, at);
  const i = roll(pieces.length);
  const j = roll(pieces.length);
  switch (roll(7)) {
    case 0:
      pieces[i] = pick(NUMBERS);
      break;
    case 1:
      pieces[i] = pick(WORDS);
      break;
    case 2:
      pieces.splice(i, 1 + roll(3));
      break;
    case 3:
      pieces.splice(i, 0, ...pieces.slice(j, j + 1 + roll(20)));
      break;
    case 4:
      [pieces[i], pieces[j]] = [pieces[j], pieces[i]];
      break;
    case 5:
      pieces.splice(i, 0, ...Array.from({ length: 200 }, () => pieces[j]));
      break;
    default:
      pieces[i] = pieces[i].replace(/-?\d+(\.\d+)?/, () => pick(NUMBERS));
  }
  return pieces.join(glue);
}

const free = (dice: Dice) => ({ roll: dice.roll.bind(dice), pick: dice.pick.bind(dice) as Dice['pick'] });

/** Tags and the text between them. */
export const damageXml: Damage = (data, dice) => strToU8(damageText(strFromU8(data), /(<[^>]*>)/, free(dice)));

/** Words, numbers and signs; every other time whole lines. */
export const damageLines: Damage = (data, dice) => {
  const text = strFromU8(data);
  return dice.roll(2) === 0
    ? strToU8(damageText(text, /(\s+|[|:\]["(){}_-]|\d+)/, free(dice)))
    : strToU8(damageText(text, /\n/, free(dice), '\n'));
};

/** A value somewhere in JSON: another value, gone, doubled, or many times over. */
export const damageJson: Damage = (data, dice) => {
  const whole: unknown = JSON.parse(strFromU8(data));
  let at = whole as Record<string, unknown>;
  for (let depth = dice.roll(6); ; depth--) {
    const keys = Object.keys(at);
    if (keys.length === 0) break;
    const key = dice.pick(keys);
    const inner = at[key];
    if (depth > 0 && typeof inner === 'object' && inner !== null) {
      at = inner as Record<string, unknown>;
      continue;
    }
    const kind = dice.roll(4);
    if (kind === 0) delete at[key];
    else if (kind === 1 && Array.isArray(at))
      at.splice(Number(key), 0, ...Array.from({ length: dice.pick([1, 50]) }, () => inner));
    else if (kind === 2 && typeof inner === 'number') at[key] = inner * dice.pick([-1, 1.5, 2, 1000, 1e9]);
    else at[key] = dice.pick(VALUES);
    break;
  }
  return strToU8(JSON.stringify(whole) ?? 'null');
};

/** Bytes of a binary file at places that mean something: lengths, types, counts. */
export const damageBytes =
  (signatures: readonly (readonly number[])[]): Damage =>
  (data, dice) => {
    const places: number[] = [];
    for (let i = 0; i + 4 < data.length; i++)
      if (signatures.some((s) => s.every((byte, k) => data[i + k] === byte))) places.push(i);
    const at = Math.min(data.length - 1, (places.length > 0 ? dice.pick(places) : 0) + dice.roll(32));
    const copy = data.slice();
    switch (dice.roll(4)) {
      case 0:
        copy[at] = dice.pick([0, 1, 0x7f, 0x80, 0xff]);
        return copy;
      case 1:
        return new Uint8Array([...data.subarray(0, at), ...data.subarray(at + 1 + dice.roll(8))]);
      case 2:
        return new Uint8Array([...data.subarray(0, at), ...data.subarray(at, at + 1 + dice.roll(40)), ...data.subarray(at)]);
      default:
        copy.set([0xff, 0xff, 0xff, 0x7f].slice(0, Math.min(4, copy.length - at)), at);
        return copy;
    }
  };
