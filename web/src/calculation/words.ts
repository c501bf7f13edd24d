import { counted } from '#contract/messages';
import type { CategoryWorkings, FlagEffect, Method, ScoreFlag, Standing, Treatment } from '#core/calculation';

/** What each method does, to go into "Each grade is …". */
export const methodWords: Record<Method, string> = {
  totalPoints: 'all points earned over all points possible',
  categoryPoints: 'weighted by category, by points within each',
  categoryEqual: 'weighted by category, every assignment the same',
  decaying: 'a decaying average of levels',
  powerLaw: 'the trend of the levels, by a power law',
  mostRecent: 'the most recent level',
  highest: 'the highest level',
  mode: 'the most frequent level',
  mean: 'the mean of the levels',
};

/** One sentence on what a method means for a student. */
export const methodHints: Record<Method, string> = {
  totalPoints: 'A test out of 100 counts ten times a quiz out of 10; categories weigh nothing.',
  categoryPoints:
    'Within a category a test out of 100 counts ten times one out of 10; the categories count by their weights.',
  categoryEqual:
    'Within a category every assignment counts the same, no matter how many points it is out of. An extra point is a hundredth of one.',
  decaying: 'Each newer level counts its share against all before it, so late understanding outweighs early trouble.',
  powerLaw: 'A curve through the levels in their order is read where it stands at the last one.',
  mostRecent: 'Only the last level by due date counts; all before it are practice.',
  highest: 'The best level ever shown counts.',
  mode: 'The level shown most often counts; of several the one shown last.',
  mean: 'All levels count the same.',
};

export const effectWords: Record<FlagEffect, string> = {
  counts: 'counts as scored',
  zero: 'counts as zero',
  leaves: 'is not counted',
  blocks: 'blocks the grade',
};

/** What each flag may do; exempt work never counts against anybody. */
export const effectsOfFlag: Record<ScoreFlag, readonly FlagEffect[]> = {
  missing: ['zero', 'leaves', 'blocks'],
  late: ['counts', 'zero', 'leaves'],
  incomplete: ['blocks', 'zero', 'leaves', 'counts'],
  exempt: ['leaves'],
  absent: ['leaves', 'zero', 'counts'],
  collected: ['leaves', 'counts'],
};

export const flagWords: Record<ScoreFlag, string> = {
  missing: 'missing',
  late: 'late',
  incomplete: 'incomplete',
  exempt: 'exempt',
  absent: 'absent',
  collected: 'collected only',
};

/** A flag in a cell of the grid. */
export const flagMarks: Record<ScoreFlag, string> = {
  missing: 'mis',
  late: 'late',
  incomplete: 'inc',
  exempt: 'ex',
  absent: 'abs',
  collected: 'coll',
};

/** What became of a score, where it is not simply counted. */
export const treatmentWords: Record<Exclude<Treatment, 'counted'>, string> = {
  countedAsZero: 'counts as zero',
  extra: 'adds only',
  notScored: 'not scored yet',
  leftOut: 'not counted',
  blocks: 'blocks the grade',
  notCounted: 'the assignment is not counted',
  otherScale: 'is on another level scale, not averaged in',
  noCategory: 'its category has no weight here',
};

export const standingWords: Record<Standing, string> = {
  exceeds: 'exceeds',
  meets: 'meets',
  below: 'not yet',
  'too little evidence': 'too little evidence',
  'no evidence': 'no evidence',
};

/** How full a disc stands for a standing, in quarters. */
export const standingQuarters: Record<Standing, number> = {
  exceeds: 4,
  meets: 3,
  below: 1,
  'too little evidence': 0,
  'no evidence': 0,
};

/** "3 scores, 1 dropped". */
export function countWords({ counted: scores, dropped }: Pick<CategoryWorkings, 'counted' | 'dropped'>): string {
  const words = counted(scores, 'score');
  return dropped > 0 ? `${words}, ${dropped} dropped` : words;
}
