export { besideOffers, type BesideInterval } from './beside.js';
export { startOf } from './positions.js';
