export { enrollmentDirectoryOf, sectionDirectoryOf } from './directories.js';
export {
  SaveEnrollmentsRequest,
  SaveSectionsRequest,
  type EnrollmentRowReply,
  type EnrollmentsImportReply,
  type EnrollmentsReply,
  type SavedEnrollmentsReply,
  type SavedSectionsReply,
  type SectionRowReply,
  type SectionsImportReply,
  type SectionsReply,
} from './sections-messages.js';
