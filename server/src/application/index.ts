export { startProblem } from './start-problem.js';
export { seedFile } from './configuration.js';
export { createApplication, createApplicationContext } from './create-application.js';
export { startWombat, type RunningWombat } from './start.js';
