export { enrollmentDirectoryOf, sectionDirectoryOf } from './directories.js';
export {
  SaveEnrollmentsRequest,
  SaveSectionsRequest,
  type EnrollmentRowReply,
  type NamedDaysReply,
  type EnrollmentsImportReply,
  type EnrollmentsReply,
  type SavedEnrollmentsReply,
  type SavedSectionsReply,
  type SectionRowReply,
  type SectionsImportReply,
  type SectionsReply,
} from './sections-messages.js';
export {
  CarryOutMoveRequest,
  MoveRequest,
  type MovedReply,
  type MovePreviewReply,
  type MovePreviewRowReply,
} from './moving-messages.js';
