export { weightedCategories, type Score } from './weighted-categories.js';
