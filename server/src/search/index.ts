export { SearchModule } from './search.module.js';
export { SearchService } from './search.service.js';
