import { VOICING_COSTS } from './costs.js';
import type { Pitch } from '../pitch/pitch.js';
import { settleHome, symbolId, type Homes, type Layered, type VoicingProblem } from './problem.js';

/** By how much a cost has to fall to be lower. */
export const LOWER = 1e-6;

/** Steps that may be weighed while homes are tried: songs of a page are searched to the end, the longest only in part. */
const WEIGHED = 300_000;

/**
 * The chords of a song as the search for homes sees them, in figures alone. A chord that comes again in a repeated part stands once,
 * with the cost of all its times.
 */
interface Chain {
  readonly links: readonly Link[];
  /** Where the choices of each link begin among all choices, and where the last end. */
  readonly starts: readonly number[];
  /** The choices of all links, by their numbers among all voicings of their symbol; -1 for keys that are none of them. */
  readonly ids: readonly number[];
  /** What each choice costs by itself. */
  readonly own: Float64Array;
  /** Costs of each step into a link, its own choices varying fastest; a link that nothing leads into has zeros. */
  readonly steps: readonly Float64Array[];
}

interface Link {
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
 * that may still lead to less is tried as its home with the other symbols free, which never costs more than what follows from it. It
 * finds the least cost over all homes, unless a long song uses up what may be weighed; then the best that was found stands. Of parts
 * that come again it weighs what they cost by themselves, and not what leads from one time to the next.
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
  const links = firsts.map((i): Link => ({ symbol: symbolOf[i], times: layers[i].times.length }));
  const ids = firsts.flatMap((i) => {
    const { voicings, free } = layers[i];
    return voicings === free.voicings ? voicings.map((_, c) => c) : placesAmong(voicings, free.voicings);
  });
  const starts = startsOf(firsts.map((i) => layers[i].voicings.length));
  const own = new Float64Array(ids.length);
  firsts.forEach((i, k) => {
    for (const t of layers[i].times) layers[t].costs.forEach((cost, c) => (own[starts[k] + c] += cost));
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
  return { links, starts, ids, own, steps };
}

/** Where each of some things stands among all, -1 for others; quick where both are in one order. */
function placesAmong<T>(some: readonly T[], all: readonly T[]): number[] {
  let next = 0;
  return some.map((thing) => {
    const ahead = all.indexOf(thing, next);
    const at = ahead < 0 && next > 0 ? all.indexOf(thing) : ahead;
    if (at >= 0) next = at + 1;
    return at;
  });
}

/** Where rows of these sizes begin, one after another, and where the last ends. */
function startsOf(sizes: readonly number[]): number[] {
  const starts = [0];
  for (const size of sizes) starts.push(starts[starts.length - 1] + size);
  return starts;
}

/** The homes that cost least, some of them given. */
function leastHomes(chain: Chain, given: Settling): readonly number[] {
  const count = given.length;
  let best = firstHomes(chain, given);
  const near = narrowed(chain, given, best.cost);
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
    if (open < 0 || walks <= 0) return;
    const tried: { readonly home: number; readonly way: Way }[] = [];
    walks -= 2;
    for (const { home, least } of likelyHomes(near, homes, open, way.cost)) {
      if (walks <= 0) break;
      if (least >= best.cost - LOWER) continue;
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
function usesOf({ links, ids }: Chain, { choices }: Way, count: number): Map<number, number>[] {
  const uses = Array.from({ length: count }, () => new Map<number, number>());
  links.forEach(({ symbol, times }, k) => {
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

/** A chain without the choices that no way of at most this cost passes through, with some homes given. */
function narrowed(chain: Chain, given: Settling, most: number): Chain {
  const { links, steps } = chain;
  const through = cheapestThrough(chain, given);
  const rows = links.map((_, k) => choicesOf(chain, k).filter((c) => through[c] <= most + LOWER));
  const kept = rows.flat();
  return {
    links,
    starts: startsOf(rows.map((row) => row.length)),
    ids: kept.map((c) => chain.ids[c]),
    own: Float64Array.from(kept, (c) => chain.own[c]),
    steps: steps.map((table, k) => (k === 0 ? table : narrowedSteps(chain, k, rows[k - 1], rows[k]))),
  };
}

/** What the step into a link costs, from a choice of the one before it. */
const stepInto = ({ starts, steps }: Chain, k: number, from: number, to: number): number =>
  steps[k][(from - starts[k - 1]) * (starts[k + 1] - starts[k]) + to - starts[k]];

/** The steps into a link without the choices that are left out on either side. */
function narrowedSteps(chain: Chain, k: number, froms: readonly number[], tos: readonly number[]): Float64Array {
  if (froms.length * tos.length === chain.steps[k].length) return chain.steps[k];
  const kept = new Float64Array(froms.length * tos.length);
  let next = 0;
  for (const from of froms) for (const to of tos) kept[next++] = stepInto(chain, k, from, to);
  return kept;
}

/** The choices of a link, among all choices. */
const choicesOf = ({ starts }: Chain, k: number): number[] =>
  Array.from({ length: starts[k + 1] - starts[k] }, (_, c) => starts[k] + c);

/**
 * What may be the home of a symbol that is still free, each with a cost that no way with this home is below: a way that leaves the home
 * at some links is charged for them, and passes through it at all others.
 */
function likelyHomes(
  chain: Chain,
  homes: Settling,
  symbol: number,
  cost: number,
): { readonly home: number; readonly least: number }[] {
  const { ids } = chain;
  const through = cheapestThrough(chain, homes);
  const links = [...chain.links.entries()]
    .filter(([, l]) => l.symbol === symbol)
    .map(([k, { times }]) => ({ times, choices: choicesOf(chain, k) }));
  const likely = new Set(links.flatMap(({ choices }) => choices.map((c) => ids[c]).filter((id) => id >= 0)));
  return [...likely].map((home) => {
    const passing = links
      .map(({ times, choices }) => ({ times, cost: through[choices.find((c) => ids[c] === home) ?? -1] ?? Infinity }))
      .sort((a, b) => b.cost - a.cost);
    let charged = 0;
    let least = Infinity;
    for (const link of [...passing, { cost, times: 0 }]) {
      least = Math.min(least, link.cost + charged);
      charged += VOICING_COSTS.otherShape * link.times;
    }
    return { home, least };
  });
}

const chargeOf = ({ symbol, times }: Link, homes: Settling): number =>
  symbol >= 0 && homes[symbol] !== null ? VOICING_COSTS.otherShape * times : 0;

/** What choices cost with some homes. */
function costOf(chain: Chain, choices: readonly number[], homes: Settling): number {
  return chain.links.reduce((sum, l, k) => {
    const c = choices[k];
    const into = k === 0 ? 0 : stepInto(chain, k, choices[k - 1], c);
    const charge = chain.ids[c] === homes[l.symbol] ? 0 : chargeOf(l, homes);
    return sum + chain.own[c] + charge + into;
  }, 0);
}

/** What each choice costs by itself once homes are charged. */
function chargedCosts({ links, starts, ids, own }: Chain, homes: Settling): Float64Array {
  const costs = own.slice();
  for (let k = 0; k < links.length; k++) {
    const charge = chargeOf(links[k], homes);
    const home = homes[links[k].symbol];
    if (charge > 0) for (let c = starts[k]; c < starts[k + 1]; c++) if (ids[c] !== home) costs[c] += charge;
  }
  return costs;
}

/** What the cheapest way into every choice costs, its own cost included. */
function costsInto({ starts, steps }: Chain, charged: Float64Array): Float64Array {
  const costs = charged.slice();
  for (let k = 1; k < steps.length; k++) {
    const [before, start, end] = [starts[k - 1], starts[k], starts[k + 1]];
    const table = steps[k];
    for (let to = start; to < end; to++) {
      let least = Infinity;
      for (let f = before, at = to - start; f < start; f++, at += end - start) least = Math.min(least, costs[f] + table[at]);
      costs[to] += least;
    }
  }
  return costs;
}

/** The cheapest way through a chain with homes, some of them free. */
function cheapest(chain: Chain, homes: Settling): Way {
  const { starts, steps } = chain;
  const costs = costsInto(chain, chargedCosts(chain, homes));
  const choices = new Array<number>(steps.length);
  let after: number | null = null;
  for (let k = steps.length - 1; k >= 0; k--) {
    let least = Infinity;
    for (let c = starts[k]; c < starts[k + 1]; c++) {
      const on = after === null ? 0 : stepInto(chain, k + 1, c, after);
      if (costs[c] + on < least) {
        least = costs[c] + on;
        choices[k] = c;
      }
    }
    after = choices[k];
  }
  return { choices, cost: costs[choices[choices.length - 1]] };
}

/** For every choice of a chain with homes, some of them free, what the cheapest way through it costs. */
function cheapestThrough(chain: Chain, homes: Settling): Float64Array {
  const { starts, steps } = chain;
  const charged = chargedCosts(chain, homes);
  const costs = costsInto(chain, charged);
  const onward = new Float64Array(costs.length);
  for (let k = steps.length - 2; k >= 0; k--) {
    const [start, next, end] = [starts[k], starts[k + 1], starts[k + 2]];
    const table = steps[k + 1];
    for (let f = start, at = 0; f < next; f++) {
      let least = Infinity;
      for (let to = next; to < end; to++, at++) least = Math.min(least, table[at] + charged[to] + onward[to]);
      onward[f] = least;
    }
  }
  return costs.map((cost, c) => cost + onward[c]);
}
