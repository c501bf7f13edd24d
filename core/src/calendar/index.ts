export { addDays, dayOrThrow, daysBetween, parseDay, type Day } from './day.js';
export { isWithin, type Period, type PeriodKind } from './period.js';
export { isPlaceholderDay } from './placeholder-day.js';
export { windowState, type WindowState } from './posting-window.js';
export { readTypedDay } from './read-typed-day.js';
