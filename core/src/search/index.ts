export { foldCode, foldWords } from './fold-words.js';
export { lettersApart } from './letters-apart.js';
export { findIn, indexOf, type Entry, type Hit, type SearchIndex, type WordList } from './search-index.js';
