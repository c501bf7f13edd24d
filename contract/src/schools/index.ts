export { OpenSchoolRequest, type OpenedSchoolReply } from './schools-messages.js';
