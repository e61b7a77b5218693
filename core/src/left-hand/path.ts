/** One step of a path search: how many choices it has and what each costs by itself. */
export interface Layer {
  readonly size: number;
  cost(choice: number): number;
}

/** What it costs to go from one choice of layer `index - 1` to one of layer `index`. */
export type StepCost = (index: number, from: number, to: number) => number;

/**
 * The cheapest path through all layers, one choice a layer: an exact dynamic programme, linear in the number of
 * layers. Ties go to the earlier choice, so equal input gives equal output. Every layer must have a choice.
 */
export function cheapestPath(layers: readonly Layer[], step: StepCost): { choices: number[]; cost: number } {
  if (layers.length === 0) return { choices: [], cost: 0 };
  const back: Int32Array[] = [];
  let costs = Float64Array.from({ length: layers[0].size }, (_, c) => layers[0].cost(c));
  for (let i = 1; i < layers.length; i++) {
    const size = layers[i].size;
    const next = new Float64Array(size);
    const from = new Int32Array(size);
    for (let to = 0; to < size; to++) {
      let best = Infinity;
      let bestFrom = 0;
      for (let f = 0; f < costs.length; f++) {
        const cost = costs[f] + step(i, f, to);
        if (cost < best - 1e-9) {
          best = cost;
          bestFrom = f;
        }
      }
      next[to] = best + layers[i].cost(to);
      from[to] = bestFrom;
    }
    back.push(from);
    costs = next;
  }
  let choice = 0;
  for (let c = 1; c < costs.length; c++) if (costs[c] < costs[choice] - 1e-9) choice = c;
  const cost = costs[choice];
  const choices = new Array<number>(layers.length);
  for (let i = layers.length - 1; i >= 0; i--) {
    choices[i] = choice;
    if (i > 0) choice = back[i - 1][choice];
  }
  return { choices, cost };
}
