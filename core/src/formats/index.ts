export { copyLine, readCopyLines } from './copy-text.js';
