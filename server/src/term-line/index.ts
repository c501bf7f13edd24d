export { TermLineModule } from './term-line.module.js';
