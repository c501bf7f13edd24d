export { bodiesOfDefaults, defaultsOfBody } from './course-defaults.js';
export {
  CopySetUpRequest,
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
