export { firstRegistrarId, makeFirstRegistrar, type FirstRegistrar } from './first-registrar.js';
export { PeopleModule } from './people.module.js';
