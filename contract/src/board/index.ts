export {
  type BoardSchoolReply,
  RemindersRequest,
  type BoardItemReply,
  type BoardReply,
  type BoardSectionReply,
  type BoardSheetReply,
  type ReminderReply,
  type RemindersReply,
  type SheetReminderReply,
} from './board-messages.js';
export { lacksInWords } from './lacks-in-words.js';
