export { weightedCategories, type Score, type WeightedCategory } from './weighted-categories.js';
