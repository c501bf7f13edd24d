export { type EntryRules, enterLabelOrCode, enterPercent } from './enter-mark.js';
export { type Mark, isBlank, noMark } from './mark.js';
export { readHours } from './read-hours.js';
export { type PercentFault, type ReadPercent, judgePercent, readPercent, readPercentText } from './read-percent.js';
export { takeComputed } from './take-computed.js';
