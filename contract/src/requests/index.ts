export { IsDay } from './is-day.js';
export { IsTimeOfDay } from './is-time-of-day.js';
export { largestId } from './largest-id.js';
export { Nested, NestedList } from './nested.js';
