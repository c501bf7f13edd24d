import { labelOf, wholeWork } from './draw-spindle-rock.js';
import type { Planting } from './planting.js';
import { items, secondTerm } from './spindle-rock.js';

/** Faults of items that teachers post by hand beside the grade of the term. */
export function plantByHand({ district, gradesOf, fault, decoy }: Planting): void {
  const projects = gradesOf('Sail Mending 1', items.project);
  const wholes = gradesOf('Sail Mending 1', items.wholeWork);
  const terms = gradesOf('Sail Mending 1');
  const above = projects[0]!;
  Object.assign(above, { percent: '104', label: labelOf('104') });
  const whole = wholeWork(Number(terms[0]!.percent), 104);
  Object.assign(wholes[0]!, { percent: whole, label: labelOf(whole) });
  fault('percent-out-of-range', 'more than the project takes', above);
  decoy(
    'percent-out-of-range',
    'the same as a grade of the term, which takes more',
    gradesOf('Cloud Names 1').find(({ percent }) => percent === '104')!,
  );
  fault(
    'comment-not-taken',
    'a comment on a project, which takes none',
    Object.assign(projects[1]!, { comment: 'Well made.' }),
  );
  decoy(
    'comment-not-taken',
    'a comment on the whole work, which takes one',
    Object.assign(wholes[5]!, { comment: 'Well made.' }),
  );
  fault(
    'composite-differs-from-parts',
    'another percentage than the parts come to, without a reason',
    Object.assign(wholes[2]!, other),
  );
  decoy(
    'composite-differs-from-parts',
    'the same with a reason',
    Object.assign(wholes[3]!, other, { isOverride: true, overrideReason: 'The board decided so.' }),
  );
  fault('round-numbers', 'all percentages end in 0 or 5', 'First Words 1');
  const [guest] = gradesOf('Knot Lore 1');
  const stray = { ...projects[4]!, enrollmentId: guest!.enrollmentId, itemId: items.project, periodId: secondTerm };
  district.grades.push(stray);
  fault('grade-not-expected', 'a project of a student whose course has none', stray);
}

const other = { percent: '99.0', label: 'A' };
