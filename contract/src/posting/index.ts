export {
  MarkBody,
  MarkChangeBody,
  SaveSheetRequest,
  type CompositeReply,
  type ComputedReply,
  type FileSourceReply,
  type ReceiptChangeReply,
  type ReceiptReply,
  type SaveSheetReply,
  type SheetListReply,
  type SheetReply,
  type SheetRowReply,
  type SheetSummaryReply,
} from './posting-messages.js';
export { bodyOfMark, markOfBody } from './wire-mark.js';
