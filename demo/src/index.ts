export { demoAccounts, demoPassword } from './demo-accounts.js';
export { makeDistrict, openPeriodId } from './make-district.js';
export { prepareDemo } from './prepare-demo.js';
export { runDemo, runEmpty, type RunningDemo } from './run-demo.js';
