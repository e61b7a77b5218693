import { VOICING_COSTS } from './costs.js';
import { cheapestThrough } from './path.js';
import type { Pitch } from '../pitch/pitch.js';
import { settleHome, symbolId, type Homes, type Layered, type VoicingProblem } from './problem.js';

/** By how much a cost has to fall to be lower. */
export const LOWER = 1e-6;

/** Steps that may be weighed while homes are tried: songs of a page are searched to the end, the longest only in part. */
const WEIGHED = 1_200_000;

/**
 * The chords of a song as the search for homes sees them, in figures alone. A chord that comes again in a repeated part stands once,
 * with the cost of all its times.
 */
interface Chain {
  readonly links: readonly Link[];
  /** Costs of each step into a link, its own choices varying fastest; a link that nothing leads into has zeros. */
  readonly steps: readonly Float64Array[];
}

interface Link {
  /** The choices that it has, by their numbers among all voicings of its symbol; -1 for keys that are none of them. */
  readonly ids: readonly number[];
  readonly own: Float64Array;
  /** The symbol it belongs to, by its number; -1 where the symbol stands once. */
  readonly symbol: number;
  /** How often it is struck. */
  readonly times: number;
}

/** A home for every symbol, by the number of a voicing; null where it is still free. */
type Settling = readonly (number | null)[];

interface Way {
  readonly choices: readonly number[];
  readonly cost: number;
}

/**
 * Settles for every symbol the keys that it has through the song, from which each strike that differs is charged. The search is by
 * bounds: where the cheapest way keeps a symbol's keys by itself there is nothing to settle, and where it does not, each of its voicings
 * is tried as its home with the other symbols still free, which never costs more than what follows from it. It finds the least cost over
 * all homes, unless a long song uses up what may be weighed; then the best that was found stands. Of parts that come again it weighs
 * what they cost by themselves, and not what leads from one time to the next.
 */
export function settleHomes({ layers, tables }: Pick<VoicingProblem, 'layers' | 'tables'>, known: Homes = new Map()): void {
  const symbols = bySymbol(layers, known);
  if (symbols.length === 0) return;
  const given = symbols.map(([i]) => indexOf(layers[i].free.voicings, known.get(symbolId(layers[i]))));
  const homes = leastHomes(chainOf(layers, tables, symbols), given);
  symbols.forEach((places, k) => {
    for (const i of places) settleHome(layers[i], layers[i].free.voicings[homes[k]]);
  });
}

/** The keys that symbols have through a song, once they are settled. */
export const homesIn = (layers: readonly Layered[]): Homes =>
  new Map(layers.flatMap((l) => (l.home ? [[symbolId(l), l.home.pitches] as const] : [])));

function indexOf(voicings: Layered['voicings'], pitches: readonly Pitch[] | undefined): number | null {
  const i = pitches ? voicings.findIndex((v) => v.pitches.join() === pitches.join()) : -1;
  return i < 0 ? null : i;
}

/** The layers of each symbol that is struck more than once or has known keys, those that are struck most often first. */
function bySymbol(layers: readonly Layered[], known: Homes): number[][] {
  const symbols = new Map<Layered['free']['voicings'], number[]>();
  layers.forEach((layer, i) => {
    // Where a line of the bass is asked for, the line goes before the shape.
    if (layer.bass !== 'free') return;
    const places = symbols.get(layer.free.voicings);
    if (places) places.push(i);
    else symbols.set(layer.free.voicings, [i]);
  });
  return [...symbols.values()]
    .filter((places) => places.length > 1 || known.has(symbolId(layers[places[0]])))
    .sort((a, b) => b.length - a.length);
}

function chainOf(layers: readonly Layered[], tables: readonly Float64Array[], symbols: readonly (readonly number[])[]): Chain {
  const symbolOf = new Int32Array(layers.length).fill(-1);
  symbols.forEach((places, k) => places.forEach((i) => (symbolOf[i] = k)));
  const firsts = layers.flatMap((l, i) => (l.as === i ? [i] : []));
  const links = firsts.map((i): Link => {
    const { voicings, free, times } = layers[i];
    return {
      ids: voicings === free.voicings ? voicings.map((_, c) => c) : voicings.map((v) => free.voicings.indexOf(v)),
      own: Float64Array.from(voicings, (_, c) => times.reduce((sum, t) => sum + layers[t].costs[c], 0)),
      symbol: symbolOf[i],
      times: times.length,
    };
  });
  const steps = firsts.map((i, k) => {
    if (k === 0) return new Float64Array();
    const before = firsts[k - 1];
    const follows = layers[i].times.filter((t) => t > 0 && layers[t - 1].as === before);
    if (follows.length === 1) return tables[follows[0]];
    const sum = new Float64Array(layers[before].voicings.length * layers[i].voicings.length);
    for (const t of follows) tables[t].forEach((cost, c) => (sum[c] += cost));
    return sum;
  });
  return { links, steps };
}

/** The homes that cost least, some of them given. */
function leastHomes(chain: Chain, given: Settling): readonly number[] {
  const count = given.length;
  let best = firstHomes(chain, given);
  const near = narrowed(chain, best.cost);
  let walks = Math.floor(WEIGHED / near.steps.reduce((sum, table) => sum + table.length, 1));
  const homes = [...given];
  const walk = (): Way => {
    walks--;
    return cheapest(near, homes);
  };
  const search = (way: Way): void => {
    const uses = usesOf(near, way, count);
    const whole = completed(homes, way, uses);
    if (whole.cost < best.cost - LOWER) best = whole;
    const open = uses.findIndex((used, k) => homes[k] === null && used.size > 1);
    if (open < 0) return;
    const tried: { readonly home: number; readonly way: Way }[] = [];
    for (const home of likelyHomes(near, open)) {
      if (walks <= 0) break;
      homes[open] = home;
      tried.push({ home, way: walk() });
    }
    tried.sort((a, b) => a.way.cost - b.way.cost);
    for (const { home, way: bounded } of tried) {
      if (bounded.cost >= best.cost - LOWER) break;
      homes[open] = home;
      search(bounded);
    }
    homes[open] = null;
  };
  search(walk());
  return best.homes;
}

interface Settled {
  readonly homes: readonly number[];
  readonly cost: number;
}

/** How often each voicing of a symbol is struck on a way. */
function usesOf({ links }: Chain, { choices }: Way, count: number): Map<number, number>[] {
  const uses = Array.from({ length: count }, () => new Map<number, number>());
  links.forEach(({ ids, symbol, times }, k) => {
    if (symbol < 0) return;
    const id = ids[choices[k]];
    uses[symbol].set(id, (uses[symbol].get(id) ?? 0) + times);
  });
  return uses;
}

/** A way as it stands once every symbol that is still free has for its home the keys that it takes most often. */
function completed(homes: Settling, way: Way, uses: readonly ReadonlyMap<number, number>[]): Settled {
  let cost = way.cost;
  const settled = uses.map((used, k) => {
    const known = homes[k];
    if (known !== null) return known;
    const [id, most] = [...used].filter(([i]) => i >= 0).reduce((a, b) => (b[1] > a[1] ? b : a), [0, 0]);
    const all = [...used.values()].reduce((a, b) => a + b, 0);
    cost += VOICING_COSTS.otherShape * (all - most);
    return id;
  });
  return { homes: settled, cost };
}

/** Most rounds in which homes follow the way and the way the homes. */
const ROUNDS = 6;

/** Homes that the cheapest way takes most often, until it keeps them. */
function firstHomes(chain: Chain, given: Settling): Settled {
  const settle = (way: Way) => completed(given, way, usesOf(chain, way, given.length));
  let found = settle(cheapest(chain, given));
  for (let round = 0; round < ROUNDS; round++) {
    const { choices } = cheapest(chain, found.homes);
    const next = settle({ choices, cost: costOf(chain, choices, given) });
    if (next.cost >= found.cost - LOWER) break;
    found = next;
  }
  return found;
}

/** A chain without the choices that no way of at most this cost passes through. */
function narrowed({ links, steps }: Chain, most: number): Chain {
  const sizes = links.map((l) => l.ids.length);
  const through = cheapestThrough(
    links.map((l) => ({ size: l.ids.length, cost: (c) => l.own[c] })),
    (k, from, to) => steps[k][from * sizes[k] + to],
  );
  const kept = through.map((costs) => [...costs.keys()].filter((c) => costs[c] <= most + LOWER));
  return {
    links: links.map((l, k) => ({
      ...l,
      ids: kept[k].map((c) => l.ids[c]),
      own: Float64Array.from(kept[k], (c) => l.own[c]),
    })),
    steps: steps.map((table, k) => (k === 0 ? table : narrowedTable(table, kept[k - 1], kept[k], sizes[k]))),
  };
}

/** A table of steps without the choices that are left out on either side. */
function narrowedTable(table: Float64Array, froms: readonly number[], tos: readonly number[], size: number): Float64Array {
  if (froms.length * tos.length === table.length) return table;
  const kept = new Float64Array(froms.length * tos.length);
  let next = 0;
  for (const from of froms) for (const to of tos) kept[next++] = table[from * size + to];
  return kept;
}

/** What may be a symbol's home. */
const likelyHomes = ({ links }: Chain, symbol: number): number[] => [
  ...new Set(links.flatMap((l) => (l.symbol === symbol ? l.ids.filter((id) => id >= 0) : []))),
];

const chargeOf = ({ symbol, times }: Link, homes: Settling): number =>
  symbol >= 0 && homes[symbol] !== null ? VOICING_COSTS.otherShape * times : 0;

/** What choices cost with some homes. */
function costOf({ links, steps }: Chain, choices: readonly number[], homes: Settling): number {
  return links.reduce((sum, l, k) => {
    const into = k === 0 ? 0 : steps[k][choices[k - 1] * l.ids.length + choices[k]];
    const charge = l.ids[choices[k]] === homes[l.symbol] ? 0 : chargeOf(l, homes);
    return sum + l.own[choices[k]] + charge + into;
  }, 0);
}

/** The cheapest way through a chain with homes, some of them free. */
function cheapest({ links, steps }: Chain, homes: Settling): Way {
  const back: Int32Array[] = [];
  let costs = new Float64Array();
  links.forEach((link, k) => {
    const size = link.ids.length;
    const next = new Float64Array(size);
    const from = new Int32Array(size);
    const charge = chargeOf(link, homes);
    const home = charge > 0 ? homes[link.symbol] : -1;
    const table = steps[k];
    for (let to = 0; to < size; to++) {
      let best = k === 0 ? 0 : Infinity;
      for (let f = 0; f < costs.length; f++) {
        const cost = costs[f] + table[f * size + to];
        if (cost < best) {
          best = cost;
          from[to] = f;
        }
      }
      next[to] = best + link.own[to] + (link.ids[to] === home ? 0 : charge);
    }
    back.push(from);
    costs = next;
  });
  let choice = 0;
  for (let c = 1; c < costs.length; c++) if (costs[c] < costs[choice]) choice = c;
  const cost = costs[choice];
  const choices = new Array<number>(links.length);
  for (let k = links.length - 1; k >= 0; k--) {
    choices[k] = choice;
    choice = back[k][choice];
  }
  return { choices, cost };
}
