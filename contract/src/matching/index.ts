export * from './matching-messages.js';
export * from './weight-messages.js';
