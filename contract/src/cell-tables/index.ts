export { cellFaultSentences } from './cell-fault-sentence.js';
export type { KeptRow, RowChange, SavedRows, SaveRowsRequest, TableImportReply } from './cell-table-messages.js';
