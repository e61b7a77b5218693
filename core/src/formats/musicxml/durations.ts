import { TICKS_PER_QUARTER as Q, type Ticks } from '../../time/ticks.js';
import { child, children, number, text, type XmlNode } from './xml.js';

/** Ticks of plain note values. */
const VALUES: Readonly<Record<string, Ticks>> = Object.fromEntries(
  ['long', 'breve', 'whole', 'half', 'quarter', 'eighth', '16th', '32nd', '64th', '128th'].map((type, i) => [
    type,
    (Q * 16) / 2 ** i,
  ]),
);

/** Parts of a quarter note that music is written in, the usual ones first: plain values, triplets, and tuplets of 5, 7 and 9. */
const PARTS = [1, 2, 4, 3, 6, 8, 12, 16, 24, 32, 5, 10, 20, 7, 14, 28, 9, 18];

/** Most ticks by which a place is moved to the part of a quarter that was meant: a 250th of a quarter note. */
const MOST_MOVED = 40;

/**
 * The place in a measure while it is read. Files state lengths in divisions of a quarter note, which seldom divide tuplets evenly:
 * programs round, so that lengths drift. Places are taken from the note values where these are written, and otherwise from the parts
 * of a quarter note that lie nearest; what is struck together in two voices stands at one place.
 */
export class WrittenTime {
  /** The place in ticks; a fraction only inside tuplets that ticks do not divide. */
  at = 0;
  /** The sum of the lengths as they are written, in ticks, and where each such place came to lie. */
  private written = 0;
  private readonly places = new Map<number, number>([[0, 0]]);

  constructor(private divisions: number) {}

  divide(divisions: number): void {
    this.divisions = divisions;
  }

  /** Divisions as ticks. */
  ticks(divisions: number): number {
    return (divisions * Q) / this.divisions;
  }

  /** Ticks that a bar may miss its bar line by. */
  get tolerance(): Ticks {
    return Math.max(4, Math.min(MOST_MOVED, Math.round(Q / this.divisions)));
  }

  /** Goes on by a written length, that of a note where one is given. */
  step(divisions: number, note?: XmlNode): void {
    const length = this.ticks(divisions);
    const value = note ? valueOf(note) : null;
    this.written += length;
    const meant = value !== null && Math.abs(value - length) <= Q / this.divisions + 1e-6 ? this.at + value : null;
    this.at = this.known() ?? tidy(meant ?? this.nearest(this.at + length));
    this.places.set(placeKey(this.written), this.at);
  }

  /** Goes back by a written length, not before the beginning of the measure. */
  back(divisions: number): void {
    this.written = Math.max(0, this.written - this.ticks(divisions));
    this.at = this.known() ?? tidy(this.nearest(this.written));
  }

  private known(): number | undefined {
    return this.places.get(placeKey(this.written));
  }

  /** The part of a quarter note that is meant by a place; the place itself where none is near. */
  private nearest(place: number): number {
    const near = (from: number, most: number): number | undefined => {
      const parts = PARTS.find((n) => Math.abs(from - onPart(from, n)) <= most);
      return parts === undefined ? undefined : onPart(from, parts);
    };
    const most = Math.min(MOST_MOVED, (0.7 * Q) / this.divisions);
    // What lies on a part as it is written was not rounded.
    return near(place, 0.01) ?? near(place, most) ?? place;
  }
}

/** The part of a quarter note that lies nearest to a place, with so many parts to the quarter. */
const onPart = (place: number, parts: number): number => (Math.round((place * parts) / Q) * Q) / parts;

const placeKey = (written: number): number => Math.round(written * 1000);

/** Without the rounding of sums. */
const tidy = (place: number): number => (Math.abs(place - Math.round(place)) < 1e-4 ? Math.round(place) : place);

/** The length of a note by its value, dots and tuplet, in ticks; null where no value is written. */
function valueOf(note: XmlNode): number | null {
  const plain = VALUES[(text(note, 'type') ?? '').trim()];
  if (plain === undefined) return null;
  const dotted = plain * (2 - 0.5 ** Math.min(4, children(note, 'dot').length));
  const tuplet = child(note, 'time-modification');
  const [actual, normal] = [number(tuplet, 'actual-notes') ?? 1, number(tuplet, 'normal-notes') ?? 1];
  return actual >= 1 && normal >= 1 ? (dotted * normal) / actual : dotted;
}
