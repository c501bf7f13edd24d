export { canPost } from './can-post.js';
export { type EntryRules, enterLabelOrCode, enterPercent } from './enter-mark.js';
export { entryRulesFor } from './entry-rules-for.js';
export { isOverride } from './is-override.js';
export { type Mark, isBlank, noMark } from './mark.js';
export { otherNamesIn, type NamedStudent } from './names-in-comment.js';
export { lastDateFault, type LastDateFault } from './last-date-fault.js';
export { computedOf, proposedMark, type ComputedBeside, type CompositeSays } from './proposed-mark.js';
export { readHours } from './read-hours.js';
export {
  type PercentFault,
  type ReadPercent,
  judgePercent,
  mostPercent,
  readPercent,
  readPercentText,
} from './read-percent.js';
export { commentWords, fillStockComment, unknownCommentWords } from './stock-comment.js';
export { takeComputed } from './take-computed.js';
