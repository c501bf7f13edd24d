// Makes the grade books of a whole district, calculates them once, and says how many megabytes that took.
import { calculateGrades, preparePolicy } from '#core/calculation';
import { gradeBooks, policy, sizeOf } from './grade-books.mjs';

const columns = gradeBooks(sizeOf(350_000, 10_000_000));
const { percent } = calculateGrades(columns, [preparePolicy(policy)], new Uint8Array(350_000), {
  digits: 1,
  rounding: 'halfUp',
});
if (percent.includes(-1)) throw new Error('somebody has no grade');
// Nothing is let go of before here; the system's own peak would count the process that started this one.
process.stdout.write(String(Math.round(process.memoryUsage().rss / 2 ** 20)));
