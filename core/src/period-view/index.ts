export { isRunning } from './is-running.js';
export {
  periodView,
  type ItemWindow,
  type PeriodView,
  type ReportedItem,
  type RunningSection,
  type SchoolFacts,
  type SectionFact,
} from './period-view.js';
export { countedPlacements, versionsInForce, type DatedVersion } from './version-in-force.js';
export { effectOfScales } from './effect-of-scales.js';
export type { EffectGpaPolicy } from './gpas-of-effect.js';
export { gradeColumns, hundredths, tenThousandths, type GradeColumns } from './grade-columns.js';
