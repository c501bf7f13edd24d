import type { OurClass, OurSectionBook, OurStudent } from './run-plan.js';
import type { RunReason } from './run-reasons.js';

export interface FoundStudent {
  readonly student: OurStudent | undefined;
  /** Our name for the person, else the platform's, else its key. */
  readonly name: string;
  readonly reasons: readonly RunReason[];
}

/** Who a person of the platform is in our section, or why nobody. */
export function findStudent(personKey: string, { people }: OurClass, { students }: OurSectionBook): FoundStudent {
  const person = people.get(personKey);
  const student = person?.target == null ? undefined : students.get(person.target);
  const name = student?.name ?? person?.name ?? personKey;
  if (person?.decision === 'ignored') return { student, name, reasons: [{ code: 'person-ignored' }] };
  if (person?.target == null) return { student, name, reasons: [{ code: 'person-open' }] };
  if (!student) return { student, name, reasons: [{ code: 'not-in-section' }] };
  const { withdrawnOn } = student;
  return { student, name, reasons: withdrawnOn === null ? [] : [{ code: 'withdrawn', about: withdrawnOn }] };
}
