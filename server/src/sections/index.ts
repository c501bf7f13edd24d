export { SectionsModule } from './sections.module.js';
