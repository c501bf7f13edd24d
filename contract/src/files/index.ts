export { fileStates } from './file-states.js';
export {
  AcceptImportRequest,
  ChooseColumnsRequest,
  type FileImportReply,
  type FileImportSummaryReply,
  type FilePlanReply,
  type FileRowReply,
  FileRowsQuery,
  ReadAgainRequest,
  type FileRowsReply,
  largestFileMegabytes,
  largestWorkbookMegabytes,
} from './file-messages.js';
