// What reads files and nothing else: threads that do begin at once with it, without the rest of the server.
export { Refusal } from '../errors/refusal.js';
export { encodingNames, textOf } from './decode-text.js';
export { isZip, openZipOrThrow } from './open-zip.js';
export { readWorkbookInThread } from './workbook/read-workbook-in-thread.js';
export { writeWorkbook } from './workbook/write-workbook.js';
export { answerInThread } from '../work/answer-in-thread.js';
