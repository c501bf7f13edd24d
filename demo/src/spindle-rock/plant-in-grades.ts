import type { Planting } from './planting.js';
import { plantInAttendance } from './plant-in-attendance.js';

const reason = { isOverride: true, overrideReason: 'As agreed with the office.' };
const noPercent = { percent: null, label: null };
const failing = { ...noPercent, code: 'NCR', lastDate: '2025-12-05', hours: '24' };

/** Faults of single grades, each of another student of Rock Pools or Cloud Names. */
export function plantInGrades(planting: Planting): void {
  const { nextOf, fault, decoy, gradesOf } = planting;
  const plant = (rule: string, what: string, change: object, section = 'Rock Pools 1') => {
    const grade = nextOf(section);
    fault(rule, what, Object.assign(grade, change));
  };
  const plantDecoy = (rule: string, what: string, change: object, section = 'Rock Pools 1') => {
    const grade = nextOf(section);
    decoy(rule, what, Object.assign(grade, change));
  };
  plant('placeholder-date', 'a passing grade with the date that a program writes for none', { lastDate: '1900-01-01' });
  plant('never-attended-not-on-first-day', 'never attended, with a date a week into the term', {
    ...noPercent,
    code: 'NVA',
    lastDate: '2025-11-03',
    hours: '0',
  });
  plantDecoy('never-attended-not-on-first-day', 'never attended, with the first day and no hours', {
    ...noPercent,
    code: 'NVA',
    lastDate: '2025-10-27',
    hours: '0',
  });
  plant('hours-missing', 'no credit with a last date, and no hours beside it', { ...failing, hours: null });
  plantDecoy('hours-missing', 'the same with hours', failing);
  plant('incomplete-past-deadline', 'an incomplete of a term that ended more than thirty days ago', {
    ...failing,
    code: 'INC',
  });
  plantDecoy('incomplete-past-deadline', 'in progress, which turns into nothing', { ...noPercent, code: 'IPR' });
  plant('code-switched-off', 'a code that the district does not use', { ...noPercent, code: 'VST' });
  plant('exempt-not-allowed', 'exempt, and the school exempts nobody', { ...noPercent, code: 'EXM' });
  plantDecoy('exempt-not-allowed', 'exempt, as the course allows it', { ...noPercent, code: 'EXM' }, 'Net Geometry 1');
  const failed = { percent: '41', label: 'F', lastDate: '2025-12-19', hours: '32', ...reason };
  plant('comment-missing', 'a failing grade without the comment that the school asks for', failed);
  plantDecoy('comment-missing', 'a failing grade with a comment', { ...failed, comment: 'Please come and talk.' });
  plant(
    'label-without-points',
    'a label of the scale to which nobody gave points',
    {
      ...reason,
      percent: '104',
      label: 'H',
    },
    'Cloud Names 1',
  );
  const blank = nextOf('Cloud Names 1');
  fault(
    'grade-missing',
    'a blank on a sheet that is signed off',
    Object.assign(blank, noPercent, { computedThen: null }),
  );
  fault('signed-off-with-blanks', 'signed off with a blank', 'Cloud Names 1');
  plantInAttendance(planting, failing);
  const manyOverrides = (section: string, count: number) => {
    for (const grade of gradesOf(section)
      .filter(({ label }) => label !== 'F')
      .slice(0, count))
      Object.assign(grade, lifted(grade.percent!), reason);
  };
  manyOverrides('Sea Weather 2', 6);
  fault('many-overrides', 'six grades of sixteen differ from what is computed, each with a reason', 'Sea Weather 2');
  manyOverrides('Sea Weather 1', 4);
  decoy('many-overrides', 'four grades of sixteen do', 'Sea Weather 1');
  const sayTheSame = (section: string, count: number) => {
    // Failing grades need a comment, and have one of these first.
    const grades = gradesOf(section).toSorted((a, b) => Number(b.label === 'F') - Number(a.label === 'F'));
    for (const [at, grade] of grades.entries()) grade.comment = at < count ? 'See you next term.' : '';
  };
  sayTheSame('Tide Arithmetic 1', 11);
  fault('comments-all-alike', 'eleven comments, all of them the same', 'Tide Arithmetic 1');
  sayTheSame('Tide Arithmetic 2', 9);
  decoy('comments-all-alike', 'nine comments, too few to say anything', 'Tide Arithmetic 2');
}

/** The next letter up, at its lowest percentage. */
function lifted(percent: string): { percent: string; label: string } {
  const value = Number(percent);
  if (value >= 80) return { percent: value === 92 ? '94' : '92', label: 'A' };
  return value >= 70 ? { percent: '84', label: 'B' } : { percent: '75', label: 'C' };
}
