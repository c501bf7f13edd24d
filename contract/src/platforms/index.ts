export { ConnectPlatformRequest, type PlatformReply } from './platform-messages.js';
