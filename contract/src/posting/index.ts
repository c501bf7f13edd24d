export {
  type CompositeReply,
  type ComputedReply,
  type FileSourceReply,
  MarkBody,
  MarkChangeBody,
  type SaveSheetReply,
  SaveSheetRequest,
  type SheetListReply,
  type SheetReply,
  type SheetRowReply,
  type SheetSummaryReply,
} from './posting-messages.js';
export {
  PostingAnswerRequest,
  type PostingRequestReply,
  PostingRequestRequest,
  type SheetWordReply,
  type SignOffReply,
  SignOffRequest,
  SignStandardsRequest,
} from './word-messages.js';
export {
  HandStandardsRequest,
  type SaveStandardsReply,
  SaveStandardsRequest,
  type StandardsReply,
} from './standards-messages.js';
export { SaveStockCommentsRequest, type StockCommentsReply } from './stock-comment-messages.js';
export {
  type DayReceiptsReply,
  type ReceiptChangeReply,
  type ReceiptReply,
  ReceiptsQuery,
  type SheetReceiptReply,
} from './receipt-messages.js';
export { markInWords } from './mark-in-words.js';
export { bodyOfMark, markOfBody } from './wire-mark.js';
