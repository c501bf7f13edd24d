export { firstSteps, type FirstStepPlace, type SetUpCounts } from './first-steps.js';
