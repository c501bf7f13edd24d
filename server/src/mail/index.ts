export { MailModule } from './mail.module.js';
export { MailService } from './mail.service.js';
