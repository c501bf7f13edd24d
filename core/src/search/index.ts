export { foldWords } from './fold-words.js';
export { lettersApart } from './letters-apart.js';
export { findIn, indexOf, type Entry, type SearchIndex } from './search-index.js';
