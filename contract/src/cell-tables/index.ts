export { cellFaultSentences } from './cell-fault-sentence.js';
export type { KeptRow, RowChange, SaveRowsRequest, TableImportReply } from './cell-table-messages.js';
