export { SearchModule } from './search.module.js';
