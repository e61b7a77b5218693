import type { Counted, CountedThing } from './result.js';
import { children, type XmlNode } from './musicxml/xml.js';

/** What a score may hold that a tune with chords has no place for, by the tag that says so. */
const LEFT_OUT: Readonly<Record<string, CountedThing>> = {
  dynamics: 'dynamics',
  wedge: 'swells',
  pedal: 'pedal',
  'octave-shift': 'octave-signs',
  articulations: 'articulations',
  technical: 'technical',
  arpeggiate: 'rolled',
  glissando: 'glides',
  slide: 'glides',
  tremolo: 'tremolos',
  'figured-bass': 'figured-bass',
  frame: 'chord-diagrams',
  cue: 'cue-notes',
  print: 'page-layout',
};

/** Counts things as they are met. */
export class Tally {
  private readonly counts = new Map<CountedThing, Counted>();

  add(what: CountedThing, became: Counted['became'], count = 1): void {
    if (count === 0) return;
    const before = this.counts.get(what);
    this.counts.set(what, { what, became, count: (before?.count ?? 0) + count });
  }

  /** Counts what lies inside a node and has no place in a song. */
  leftOutIn(node: XmlNode, depth = 0): void {
    for (const inner of children(node)) {
      const tag = Object.keys(inner).find((k) => k !== ':@') ?? '';
      const what = LEFT_OUT[tag];
      if (what) this.add(what, 'left out');
      else if (depth < 3) this.leftOutIn(inner, depth + 1);
    }
  }

  /** All that was counted, what is used first. */
  all(): Counted[] {
    const order = ['used', 'kept', 'left out'];
    return [...this.counts.values()].sort((a, b) => order.indexOf(a.became) - order.indexOf(b.became));
  }
}
