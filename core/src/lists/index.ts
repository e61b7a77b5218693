export { grouped } from './grouped.js';
