export { checkItem, checkItems, partPeriod, sumOfWeights, type ItemFault, type ItemFaultCode } from './check-items.js';
export { comesOutOfBook, type BookItem } from './comes-out-of-book.js';
export { commentFault } from './comment-fault.js';
export { compositeOf, partState, type Composite, type WeighedPart } from './composite.js';
export { coverage, coverageChange, reportsItem, type Assignment, type CourseCoverage } from './coverage.js';
export { familyValue, laterTime, type FamilyValue } from './family-value.js';
export { isPostedIn, nearestPostedIn } from './posted-in.js';
export {
  commentRules,
  familyTimes,
  familyViews,
  itemKinds,
  itemSources,
  partUnits,
  type CommentRule,
  type FamilyTime,
  type FamilyView,
  type ItemKind,
  type ItemSource,
  type PartUnit,
  type ReportItem,
} from './report-item.js';
export type { Exception, Rule } from './rule.js';
