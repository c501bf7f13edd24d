export type { ChangedThingReply, ChangeReply, ReadingReply, UndoReply } from './change-messages.js';
export { LogRequest, type LogCheckReply, type LogEntryReply, type LogReply } from './log-messages.js';
