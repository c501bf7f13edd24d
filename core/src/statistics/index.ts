export { binomialTail } from './binomial-tail.js';
export { chiSquareTail } from './chi-square-tail.js';
export { compareCounts } from './compare-counts.js';
export { fewestFalseAlarms } from './fewest-false-alarms.js';
