export { agreeing, counted, type CountedThing, type CountedVerb } from './counted.js';
export { usesInWords, type Uses } from './uses-in-words.js';
export { dayInWords, momentInWords, timeInWords } from './days-in-words.js';
export { listed } from './listed.js';
export { formatMessage } from './format-message.js';
