export { codeFaultFields, codeFaultSentence } from './code-fault-sentence.js';
export { CodeBody, type CodesReply, SaveCodesRequest } from './code-messages.js';
export { bodyOfCode, codeOfBody } from './wire-code.js';
