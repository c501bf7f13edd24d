export { binomialTail } from './binomial-tail.js';
export { chiSquareTail } from './chi-square-tail.js';
export { compareCounts } from './compare-counts.js';
export { fewestFalseAlarms } from './fewest-false-alarms.js';
export { meanShift, type Sample } from './mean-shift.js';
