export { GpaPolicyRepository } from './gpa-policy.repository.js';
export { enrolledIn, enrolledInText, gradedByText, gradedIn, gradedInText } from './enrolled-in.js';
export { PeriodViewModule } from './period-view.module.js';
export {
  PeriodViews,
  reportedOrThrow,
  scaleOf,
  type PeriodView,
  type ReportedItem,
  type RunningSection,
  type SchoolFacts,
  type SectionScale,
} from './period-views.js';
export { PoliciesRepository, type KeptPolicy } from './policies.repository.js';
export { SetUpMark } from './set-up-mark.js';
export { ScaleVersionsRepository, type ScaleVersion } from './scale-versions.repository.js';
