export { SchoolsModule } from './schools.module.js';
