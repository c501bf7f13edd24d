export * from './file-messages.js';
export * from './run-messages.js';
export * from './run-reason-words.js';
