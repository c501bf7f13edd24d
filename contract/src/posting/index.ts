export {
  MarkBody,
  MarkChangeBody,
  PostingAnswerRequest,
  PostingRequestRequest,
  ReceiptsQuery,
  SaveSheetRequest,
  SaveStockCommentsRequest,
  SignOffRequest,
  type CompositeReply,
  type ComputedReply,
  type DayReceiptsReply,
  type FileSourceReply,
  type PostingRequestReply,
  type ReceiptChangeReply,
  type ReceiptReply,
  type SaveSheetReply,
  type SheetListReply,
  type SheetReceiptReply,
  type SheetReply,
  type SheetRowReply,
  type SheetSummaryReply,
  type SheetWordReply,
  type SignOffReply,
  type StockCommentsReply,
} from './posting-messages.js';
export { markInWords } from './mark-in-words.js';
export { computedOf, proposedMark } from './proposed-mark.js';
export { bodyOfMark, markOfBody } from './wire-mark.js';
