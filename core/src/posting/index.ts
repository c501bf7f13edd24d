export { enterLabelOrCode, enterPercent, type EntryRules } from './enter-mark.js';
export { isBlank, noMark, type Mark } from './mark.js';
export { judgePercent, readPercent, readPercentText, type PercentFault, type ReadPercent } from './read-percent.js';
export type { SpecialCode } from './special-code.js';
export { takeComputed } from './take-computed.js';
