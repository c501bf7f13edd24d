export {
  cardTimes,
  ReportCardQuery,
  type CardCourseReply,
  type CardItemReply,
  type CardTime,
  type FamilyValueReply,
  type ReportCardReply,
} from './report-card-messages.js';
