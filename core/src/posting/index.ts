export { enterLabelOrCode, enterPercent, type EntryRules } from './enter-mark.js';
export { isBlank, noMark, type Mark } from './mark.js';
export { readHours } from './read-hours.js';
export { judgePercent, readPercent, readPercentText, type PercentFault, type ReadPercent } from './read-percent.js';
export { newCode } from './new-code.js';
export { checkCodes, type CodeFault, type CodeFaultCode } from './check-codes.js';
export { codeParts, type CodePart, type SpecialCode } from './special-code.js';
export { takeComputed } from './take-computed.js';
