export { PeopleModule } from './people.module.js';
