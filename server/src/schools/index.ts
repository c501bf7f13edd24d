export type { SchoolValue } from './school.thing.js';
export { SchoolsModule } from './schools.module.js';
