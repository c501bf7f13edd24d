export {
  AcceptImportRequest,
  ChooseColumnsRequest,
  type FileImportReply,
  type FileImportSummaryReply,
  type FilePlanReply,
  type FileRowReply,
  FileRowsQuery,
  type FileRowsReply,
  largestFileMegabytes,
  largestWorkbookMegabytes,
} from './file-messages.js';
