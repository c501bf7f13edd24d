export { bodiesOfDefaults, defaultsOfBody } from './course-defaults.js';
export { cellFaultSentences } from './cell-fault-sentence.js';
export {
  CopySetUpRequest,
  CourseChangeBody,
  CourseDefaultsBody,
  SaveCourseDefaultsRequest,
  SaveCoursesRequest,
  copiedParts,
  type CopiedPart,
  type CopySetUpReply,
  type CourseImportReply,
  type CourseReply,
  type CoursesReply,
} from './course-messages.js';
