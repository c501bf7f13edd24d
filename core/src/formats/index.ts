export { copyLine, readCopyLines } from './copy-text.js';
export { plainLetters } from './plain-letters.js';
export { wholeText } from './whole-text.js';
