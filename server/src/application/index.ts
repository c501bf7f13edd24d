export { seedFile } from './configuration.js';
export { createApplication, createApplicationContext } from './create-application.js';
export { startWombat } from './start.js';
