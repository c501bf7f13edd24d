export { SavePeopleRequest, type PeopleImportReply, type PeopleReply, type PersonRowReply } from './people-messages.js';
export { SignInRequest, type DemoPersonReply, type PersonReply, type SessionReply } from './session-messages.js';
