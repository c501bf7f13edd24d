export { type CodeFault, type CodeFaultCode, checkCodes } from './check-codes.js';
export { newCode } from './new-code.js';
export { type CodePart, type SpecialCode, codeParts } from './special-code.js';
