export { firstSteps, isBeingSetUp, type FirstStepPlace, type SetUpCounts } from './first-steps.js';
