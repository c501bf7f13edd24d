export {
  OpenSchoolRequest,
  RenameSchoolRequest,
  type OpenedSchoolReply,
  type SchoolNamesReply,
} from './schools-messages.js';
