export { copyLine, readCopyLines } from './copy-text.js';
export { wholeText } from './whole-text.js';
