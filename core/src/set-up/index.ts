export { firstSteps, type FirstStep, type FirstStepPlace, type SetUpCounts } from './first-steps.js';
