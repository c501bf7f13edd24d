import type { Demo } from '../make-district.js';
import type { Planting } from './planting.js';
import { firstTerm, items } from './spindle-rock.js';

/** Faults of who sits where, and of what was sealed. @returns grades that are changed behind the seal's back */
export function plantInSeats({
  district,
  named,
  enrollmentsOf,
  gradesOf,
  nextOf,
  fault,
  decoy,
  faults,
  decoys,
}: Planting): Demo['driftedGrades'] {
  const { enrollments, grades } = district;
  const change = (enrollmentId: number, to: object) => {
    const at = enrollments.findIndex(({ id }) => id === enrollmentId);
    enrollments[at] = { ...enrollments[at]!, ...to };
  };
  const left = gradesOf('Lamp Keeping 1').at(-1)!;
  change(left.enrollmentId, { enteredOn: '2025-11-24', withdrawnOn: '2025-11-03' });
  fault('left-before-coming', 'came on a day after the one on which the student left', left);
  grades.splice(grades.indexOf(left), 1);

  const twice = nextOf('Sea Weather 1');
  const { studentId, enteredOn } = enrollments.find(({ id }) => id === twice.enrollmentId)!;
  const id = enrollments.length + 1;
  enrollments.push({ id, sectionId: named('Sea Weather 2').id, studentId, enteredOn, withdrawnOn: null });
  const again = { ...twice, enrollmentId: id, computedThen: null };
  grades.push(again);
  fault('enrolled-twice', 'sits in two sections of the course', again);

  // Who took Old Charts in the first term and takes it again: one passed it then, one did not.
  const before = grades.filter(({ periodId }) => periodId === firstTerm);
  const [passed, failed, drifted] = before.filter(({ label, comment }) => label !== 'F' && comment === '');
  const lastDay = { lastDate: '2025-10-24', hours: '30', comment: 'Please take it again.' };
  const isOther = { isOverride: true, overrideReason: 'The last test was not handed in.' };
  Object.assign(failed!, { percent: '52', label: 'F', ...lastDay, ...isOther });
  const studentOf = ({ enrollmentId }: { enrollmentId: number }) =>
    enrollments.find((each) => each.id === enrollmentId)!.studentId;
  const [first, second] = enrollmentsOf(named('Old Charts 1'));
  change(first!.id, { studentId: studentOf(passed!) });
  change(second!.id, { studentId: studentOf(failed!) });
  const ownGrade = (enrollmentId: number) =>
    grades.find((grade) => grade.enrollmentId === enrollmentId && grade.itemId === items.termGrade)!;
  fault('repeated-past-credits', 'has the credits of the course already', ownGrade(first!.id));
  decoy('repeated-past-credits', 'takes the course again after failing it', ownGrade(second!.id));

  fault('sealed-copy-differs', 'another grade than the one that was sealed', drifted!);
  decoy('sealed-copy-differs', 'the grade that was sealed', passed!);
  for (const list of [faults, decoys]) Object.assign(list.at(-1)!, { period: 'First term' });
  const { enrollmentId, itemId, periodId } = drifted!;
  return [{ enrollmentId, itemId, periodId, percent: '99', label: 'A' }];
}
