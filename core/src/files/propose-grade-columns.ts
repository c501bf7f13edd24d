import { isAsGrades } from './is-as-grades.js';
import { periodForms } from './period-forms.js';
import type { ColumnDoubt, ColumnProposal, ColumnReason, FileProposals } from './propose-columns.js';
import { readExportedPercent } from './read-exported-percent.js';

/** A report item that a column may be for. */
export interface ProposedItem {
  readonly id: number;
  readonly name: string;
  readonly heading: string;
  /** The highest level of its scales where they take levels; null for percentages. */
  readonly highestLevel: number | null;
}

/** The period that a file is imported into, and the others of the school. */
export interface NamedPeriods {
  readonly own: string;
  readonly others: readonly string[];
}

/** Words that head a column of totals and nothing else, best first. */
const totalWords = ['final percent', 'total percent', 'course total', 'final', 'total', 'overall'];
/** Words that may head one, where there is no other column of percentages. */
const vagueWords = ['result', 'percent', 'grade', 'score'];
/** Words of what was not given out, which is not what is posted. */
const withheldWords = ['unposted', 'current', 'running', 'draft'];

/**
 * The columns of percentages, each for a report item: that headed by the item's name or short heading, and for the first
 * item, without one, the column that is called a total. What is doubtful is proposed for nothing, so that somebody is asked:
 * a column of another period, values that are no grades out of a hundred, two columns of which each may be meant.
 */
export function proposeGradeColumns(
  header: readonly string[],
  rows: readonly (readonly string[])[],
  taken: readonly (number | undefined)[],
  items: readonly ProposedItem[],
  periods: NamedPeriods,
): Pick<FileProposals, 'grades' | 'doubts'> {
  const percents = percentColumns(header, rows).filter(({ column }) => !taken.includes(column));
  const free = percents.filter(({ heading }) => !isOfAnotherPeriod(heading, periods));
  const named = items.map((item) => namedAsItem(free, item));
  const used = new Set(named.map((proposal) => proposal?.column));
  const grades = items.flatMap((item, at) => {
    const isAsked = free.some(({ heading }) => isHeadedBy(heading, item)); // several are, or none is as grades are
    const others = free.filter(
      ({ column, heading }) => !used.has(column) && !items.some((each) => isHeadedBy(heading, each)),
    );
    const proposal = named[at] ?? (at === 0 && !isAsked ? asTotal(others, percents.length === 1, item) : undefined);
    return proposal ? [{ itemId: item.id, proposal }] : [];
  });
  const proposed = new Set(grades.map(({ proposal }) => proposal.column));
  const left = percents.filter(({ column }) => !proposed.has(column));
  return {
    grades,
    doubts: left.map((each) => ({ column: each.column, code: doubtOf(each, percents, items, periods) })),
  };
}

/** Why a column of percentages is proposed for nothing. */
function doubtOf(
  { column, heading, values }: PercentColumn,
  percents: readonly PercentColumn[],
  items: readonly ProposedItem[],
  periods: NamedPeriods,
): ColumnDoubt['code'] {
  if (isOfAnotherPeriod(heading, periods)) return 'otherPeriod';
  if (withheldWords.some((word) => hasWords(heading, word))) return 'withheld';
  const item = items.find((each) => isHeadedBy(heading, each));
  if (!isAsGrades(values, (item ?? items[0])?.highestLevel ?? null)) return 'values';
  const isMeant = (other: string) =>
    item ? isHeadedBy(other, item) : totalWords.some((word) => hasWords(other, word) && hasWords(heading, word));
  return percents.some((other) => other.column !== column && isMeant(other.heading)) ? 'alike' : 'unnamed';
}

interface PercentColumn {
  readonly column: number;
  /** In small letters, nothing but words. */
  readonly heading: string;
  readonly values: readonly number[];
  readonly percents: number;
  readonly rows: number;
}

/** Columns with percentages in at least half of the rows. */
function percentColumns(header: readonly string[], rows: readonly (readonly string[])[]): PercentColumn[] {
  return header.flatMap((name, column) => {
    const values = rows.flatMap((row) => {
      const read = readExportedPercent(row[column] ?? '');
      return read.kind === 'percent' ? [Number(read.percent.units) / 10 ** read.percent.digits] : [];
    });
    return rows.length === 0 || values.length * 2 < rows.length
      ? []
      : [{ column, heading: wordsOf(name), values, percents: values.length, rows: rows.length }];
  });
}

function wordsOf(name: string): string {
  return name
    .toLowerCase()
    .replace(/[^\p{L}%\d]+/gu, ' ')
    .replace('%', ' percent')
    .replace(/\s+/g, ' ')
    .trim();
}

const hasWords = (heading: string, words: string) => words !== '' && ` ${heading} `.includes(` ${words} `);

function isHeadedBy(heading: string, { name, heading: short }: ProposedItem): boolean {
  return [name, short].some((each) => hasWords(heading, wordsOf(each)));
}

function isOfAnotherPeriod(heading: string, { own, others }: NamedPeriods): boolean {
  const names = (period: string) => periodForms(period).some((form) => hasWords(heading, form));
  return !names(own) && others.some(names);
}

/** The one column that is headed by an item; of several the one that is headed by nothing else. */
function namedAsItem(free: readonly PercentColumn[], item: ProposedItem): ColumnProposal | undefined {
  const headed = free.filter(({ heading }) => isHeadedBy(heading, item));
  const whole = headed.filter(({ heading }) =>
    [item.name, item.heading].some((each) => heading.replace(/ percent$/, '') === wordsOf(each)),
  );
  const [one, ...more] = headed.length > 1 ? whole : headed;
  if (!one || more.length > 0 || !isAsGrades(one.values, item.highestLevel)) return undefined;
  const { column, percents, rows } = one;
  const confidence = Math.floor((97 * percents) / rows);
  return { column, confidence, reason: { code: 'named-as-item', percents, rows } };
}

/** The one column with the best word for a total; of several with it none. The only column of percentages needs no word. */
function asTotal(others: readonly PercentColumn[], isOnly: boolean, item: ProposedItem): ColumnProposal | undefined {
  const ranked = others.flatMap((each) => {
    const words = isOnly ? [...totalWords, ...vagueWords] : totalWords;
    const rank = words.findIndex((word) => hasWords(each.heading, word));
    const isWithheld = withheldWords.some((word) => hasWords(each.heading, word));
    return isWithheld || (rank === -1 && !isOnly) ? [] : [{ ...each, rank }];
  });
  const least = Math.min(...ranked.map(({ rank }) => rank));
  const [one, ...more] = ranked.filter(({ rank }) => rank === least);
  if (!one || more.length > 0 || !isAsGrades(one.values, item.highestLevel)) return undefined;
  const { column, percents, rows, rank } = one;
  const confidence = Math.floor((60 * percents) / rows) + (rank === -1 ? 0 : 38 - 3 * rank);
  const reason: ColumnReason =
    rank === -1
      ? { code: 'percents', percents, rows }
      : { code: 'name-and-percents', word: [...totalWords, ...vagueWords][rank]!, percents, rows };
  return { column, confidence, reason };
}
