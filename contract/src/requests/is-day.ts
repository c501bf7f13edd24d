import { Matches, ValidateBy, type ValidationOptions } from 'class-validator';
import { parseDay } from '#core/calendar';
import { all } from './all.js';

const written = /^\d{4}-\d{2}-\d{2}$/;

/** A field that holds a day that there is, of years that a school may count in. */
export function IsDay(message = 'a day that exists, such as 2026-01-16'): PropertyDecorator {
  const options: ValidationOptions = { message };
  return all(Matches(written, options), IsDayOfCalendar(options));
}

/** What is not even written as a day is told of once, by the pattern. */
function IsDayOfCalendar(options: ValidationOptions): PropertyDecorator {
  const validate = (value: unknown) =>
    typeof value !== 'string' ||
    !written.test(value) ||
    (parseDay(value) !== undefined && value >= '1000' && value < '3000');
  return ValidateBy({ name: 'isDayOfCalendar', validator: { validate } }, options);
}
