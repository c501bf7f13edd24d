export { familySentence } from './family-sentence.js';
export { itemFaultSentence } from './item-fault-sentence.js';
export {
  ItemRulesBody,
  ExceptionBody,
  ItemBody,
  NewItemRequest,
  OrderItemsRequest,
  PartBody,
  RuleBody,
  SaveAssignmentRequest,
  SaveItemRequest,
  type AssignmentPreviewReply,
  type ItemEffectReply,
  type CoverReply,
  type CoveredCourseReply,
  type ItemReply,
  type ReportItemsReply,
} from './item-messages.js';
export { bodyOfAssignment, bodyOfItem, itemOfBody } from './wire-item.js';
