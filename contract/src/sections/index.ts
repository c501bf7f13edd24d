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
  mostMoved,
  MoveRequest,
  type MovedReply,
  type MovePreviewReply,
  type MovePreviewRowReply,
  type RoomReply,
} from './moving-messages.js';
export {
  CarryOutMergeSectionsRequest,
  CarryOutSplitSectionRequest,
  MergeSectionsRequest,
  SplitSectionRequest,
  type MergeSectionsPreviewReply,
  type OwnSetUp,
  type SplitSectionPreviewReply,
} from './reshaping-messages.js';
