import { JOIN_ORDERS, STEP_ORDERS, type JoinOrder, type StepOrder } from '@joined-hands/core/log';

/** What a pianist may wish of how a song is learned, as it stands in lists. */

const STEPS: Readonly<Record<StepOrder, string>> = {
  song: $localize`in song order`,
  'hardest-first': $localize`the hardest part first`,
  'hardest-last': $localize`the hardest part last`,
};
const JOINS: Readonly<Record<JoinOrder, string>> = {
  chain: $localize`one after another`,
  pairs: $localize`in pairs, then fours`,
};

export const STEP_WISHES = STEP_ORDERS.map((id) => ({ id, text: STEPS[id] }));
export const JOIN_WISHES = JOIN_ORDERS.map((id) => ({ id, text: JOINS[id] }));
export const MINUTE_WISHES = [10, 15, 20, 30, 45, 60, 90].map((id) => ({ id, text: $localize`${id} min` }));
export const LEARN_WISHES = [
  { id: 'words' as const, text: $localize`Words` },
  { id: 'counts' as const, text: $localize`Counts` },
];
