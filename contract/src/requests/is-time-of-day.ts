import { Matches } from 'class-validator';

/** A field that holds a time of day, to the minute. */
export function IsTimeOfDay(): PropertyDecorator {
  return Matches(/^([01]\d|2[0-3]):[0-5]\d$/, { message: 'a time of day from 00:00 to 23:59, such as 02:30' });
}
