export { SavePeopleRequest, type PeopleImportReply, type PeopleReply, type PersonRowReply } from './people-messages.js';
export {
  AddPasskeyRequest,
  SignInByPasskeyRequest,
  type NewPasskeyOptionsReply,
  type PasskeyOptionsReply,
  type PasskeyReply,
} from './passkey-messages.js';
export { ChangeOwnViewRequest } from './own-view-messages.js';
export {
  AskForLinkRequest,
  SeeAsRequest,
  SignInRequest,
  type DemoPersonReply,
  type PersonReply,
  type SessionReply,
} from './session-messages.js';
export {
  CarryOutMergeRequest,
  DifferentPeopleRequest,
  MergeRequest,
  type DifferentPeopleReply,
  type DuplicateRecordReply,
  type DuplicateReply,
  type MergePreviewReply,
} from './merge-messages.js';
export {
  ChangeAccountRequest,
  ChangePasswordRequest,
  LookAtLinkRequest,
  passwordFaultSentences,
  SendLinksRequest,
  UseLinkRequest,
  type AccountReply,
  type AccountsReply,
  type AccountState,
  type LinkReply,
  type NoLinkReason,
  type SentLinksReply,
} from './account-messages.js';
