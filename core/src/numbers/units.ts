import type { Decimal } from './decimal.js';

declare const unit: unique symbol;

/** A decimal with a unit. A plain decimal may become one; one unit never passes for another. */
type Measured<Unit extends string> = Decimal & { readonly [unit]?: Unit };

/** Out of a hundred; 86.4 is 86.4 %. Extra credit may go above 100. */
export type Percent = Measured<'percent'>;
/** Grade points, as on a scale from 0 to 4. */
export type GradePoints = Measured<'grade points'>;
/** Course credits. */
export type Credits = Measured<'credits'>;
/** Hours attended in class. */
export type Hours = Measured<'hours'>;
