export * from './file-messages.js';
export * from './run-messages.js';
