export { SetUpModule } from './set-up.module.js';
