import type { CategoryWorkings } from '#core/calculation';
import { bandEdges } from '#core/scales';
import { formatAtLeast, formatDecimal, roundDown, roundTo, type Rational } from '#core/numbers';
import { policyOfBody, type BookReply } from '#contract/calculation';
import { listed } from '#contract/messages';
import { Awaited } from '../../shell/awaited';
import { showDay, showLabel, showPercent, showPrecision } from '../../ui/format';
import { WorkingsSheet, type WorkingLine } from '../../ui/workings-sheet';
import { bandsOfBook, bookRows, precisionOfBook, type BookRow } from './book-view';
import { useBook } from '../queries';
import { countWords, flagWords, methodWords, standingWords, treatmentWords } from '../words';

interface BookWorkingsProps {
  readonly sectionId: number;
  readonly periodId: number;
  readonly enrollmentId: number;
}

/** How a student's percent came about in the section's grade book, down to every score. */
export function BookWorkings({ sectionId, periodId, enrollmentId }: BookWorkingsProps) {
  return (
    <Awaited query={useBook(sectionId, periodId)} waiting="Opening the grade book">
      {(book) => <StudentSum book={book} enrollmentId={enrollmentId} />}
    </Awaited>
  );
}

function StudentSum({ book, enrollmentId }: { book: BookReply; enrollmentId: number }) {
  const row = bookRows(book, policyOfBody(book.policy)).find(({ student }) => student.enrollmentId === enrollmentId);
  if (!row) return <p className="text-quiet">This student is not on the list of the grade book.</p>;
  return <GradeBookSum book={book} row={row} />;
}

/** The sum of one student as on paper: scores by category, the categories, the whole, its rounding and its label. */
export function GradeBookSum({ book, row }: { book: BookReply; row: BookRow }) {
  const policy = policyOfBody(book.policy);
  const stray = book.assignments.filter((assignment) => !row.categories.has(assignment.categoryId));
  return (
    <div className="space-y-4">
      <p>
        From the grade book of {book.section}: {methodWords[policy.method]}, as set for {book.policyFrom}.
      </p>
      {policy.categories.map(({ categoryId }) => {
        const category = row.categories.get(categoryId)!;
        const lines = scoreLines(book, row, categoryId);
        if (lines.length === 0) return null;
        return (
          <section key={categoryId}>
            <h4 className="mb-1.5 font-bold">{nameOf(book, categoryId)}</h4>
            <WorkingsSheet lines={[...lines, categoryLine(book, category)]} />
          </section>
        );
      })}
      {stray.length > 0 && (
        <section>
          <h4 className="mb-1.5 font-bold">Without a weight</h4>
          <WorkingsSheet lines={stray.flatMap((assignment) => scoreLines(book, row, assignment.categoryId))} />
        </section>
      )}
      <section>
        <h4 className="mb-1.5 font-bold">Overall</h4>
        <WorkingsSheet lines={wholeLines(book, row)} />
      </section>
    </div>
  );
}

function scoreLines(book: BookReply, row: BookRow, categoryId: number): WorkingLine[] {
  return book.assignments
    .filter((assignment) => assignment.categoryId === categoryId && row.scores.has(assignment.id))
    .map((assignment): WorkingLine => {
      const { points, flag, treatment, isDropped } = row.scores.get(assignment.id)!;
      const why = isDropped
        ? 'dropped: without it the rest gives the most'
        : treatment === 'counted'
          ? undefined
          : treatmentWords[treatment];
      const notes = [`due ${showDay(assignment.dueOn)}`, flag && flagWords[flag], why].filter(Boolean);
      return {
        says: isDropped ? <s>{assignment.name}</s> : assignment.name,
        figure: `${points ?? '–'} / ${assignment.possible}`,
        note: notes.join(', '),
      };
    });
}

function categoryLine(book: BookReply, category: CategoryWorkings): WorkingLine {
  const { method } = book.policy;
  const says = `${nameOf(book, category.categoryId)}, ${countWords(category)}`;
  if (!category.limited)
    return {
      says,
      figure: 'nothing',
      isResult: true,
      note: category.standing ? standingWords[category.standing] : 'Its weight goes to the others.',
    };
  const isHeld = shown(category.percent!) !== shown(category.limited);
  const level = category.level && `level ${shown(category.level)}, ${standingWords[category.standing!]}`;
  const sum =
    category.level || method === 'categoryEqual'
      ? null
      : `${formatAtLeast(category.earned, 0)}${category.extra.units > 0n ? ` and ${formatAtLeast(category.extra, 0)} extra` : ''} of ${formatAtLeast(category.possible, 0)}`;
  const share = category.share && `counts ${shown(category.share)} of 100`;
  const weight =
    category.share && shown(category.share) !== formatAtLeast(category.weight, 0)
      ? `by its weight of ${formatAtLeast(category.weight, 0)}`
      : null;
  return {
    says,
    figure: `${shown(category.limited)} %`,
    isResult: true,
    note: [level, sum, isHeld && `held down from ${shown(category.percent!)} % by its limit`, share, weight]
      .filter(Boolean)
      .join(', '),
  };
}

function wholeLines(book: BookReply, row: BookRow): WorkingLine[] {
  const { workings, rounded, label } = row;
  if (workings.blockedBy.length > 0) {
    const names = workings.blockedBy.map((id) => book.assignments.find((each) => each.id === id)!.name);
    return [{ says: 'Blocked', figure: '–', note: `${listed(names)} must be resolved first.`, isResult: true }];
  }
  if (!workings.percent || !rounded) return [{ says: 'No evidence yet', figure: '–', isResult: true }];
  const { item } = book;
  const edge = bandEdges(bandsOfBook(book), precisionOfBook(book), 2).find(({ band }) => band.label === label);
  return [
    {
      says: 'Together, exact',
      figure: `${shown(workings.percent, 6)} %`,
      note: workings.isLimited ? `held down by the limit of ${book.policy.cap} %` : undefined,
    },
    {
      says: item ? `Rounded once, ${showPrecision(item.rounding, item.digits)}` : 'Rounded to two decimals',
      figure: showPercent(formatDecimal(rounded)),
      isResult: true,
    },
    ...(item
      ? [
          {
            says: `On ${item.scaleName ?? 'no scale'}`,
            figure: label ? showLabel(label) : 'no label',
            note: edge
              ? `Reaches the cut-off of ${formatDecimal(edge.band.lowest)}; the first value in is ${formatDecimal(edge.firstValue)}.`
              : 'No scale is in force, or the percentage lies below every cut-off.',
          },
        ]
      : []),
  ];
}

function nameOf({ categories }: BookReply, id: number): string {
  return categories.find((category) => category.id === id)?.name ?? 'A category that is gone';
}

/** Cut, not rounded, so that nothing looks as if it would round on; without zeros at its end. */
function shown(value: Rational, digits = 4): string {
  return formatAtLeast(roundTo(value, digits, roundDown), 0);
}
