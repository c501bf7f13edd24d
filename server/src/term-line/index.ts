export { TermLineModule } from './term-line.module.js';
export { TermLineService } from './term-line.service.js';
