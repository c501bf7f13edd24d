export { readConfigurationOrThrow, seedFile } from './configuration.js';
export { createApplication, createApplicationContext } from './create-application.js';
export { districtClock, startWombat } from './start.js';
