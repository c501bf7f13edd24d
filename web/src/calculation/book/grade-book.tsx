import { useCallback, useEffect, useMemo, useState } from 'react';
import { Link, useBlocker, useSearchParams } from 'react-router';
import { useTellOfChange } from '../../changes/use-tell-of-change';
import { policyOfBody, type AssignmentBody, type AssignmentReply, type BookReply } from '#contract/calculation';
import { counted } from '#contract/messages';
import { LeaveDialog } from '../../posting/leave-dialog';
import { ProblemError } from '../../shell/api';
import { closeDrawer, openDrawer, useDrawer } from '../../shell/drawer-store';
import { useScope } from '../../shell/scope';
import { showProblem } from '../../shell/show-problem';
import { Button, Key } from '../../ui/button';
import { ViewSwitch } from '../../ui/field';
import { showGivenFirst } from '../../ui/format';
import { LastRun } from '../../runs/last-run';
import { useOwnView } from '../../ui/own-view';
import { Page } from '../../ui/page';
import { Empty, Panel } from '../../ui/panel';
import { useKeys } from '../../ui/use-keys';
import { AssignmentDialog } from './assignment-dialog';
import { bookColumns } from './book-columns';
import { BookGrid } from './book-grid';
import { BookHeadline } from './book-headline';
import { BookMatters } from './book-matters';
import { BookProblems } from './book-problems';
import { createBookRows, type BookRow } from './book-view';
import { GradeBookSum } from './book-workings';
import { BookCategoriesDialog } from '../policy/categories-dialog';
import { FillScoresDialog } from './fill-scores-dialog';
import { useSaveScores } from '../queries';
import { noScoreDrafts, overTheirs, readDrafts, scoreDrafts, withoutSent, withScores } from './score-drafts';
import { StandingTable } from './standing-table';
import { methodWords } from '../words';
import { blanksOf, hasProblem, isBlankIn } from './book-blanks';

const views = [
  ['scores', 'Scores'],
  ['standing', 'By standard'],
] as const;

/** A section's grade book: typed into by its teacher and calculated as they type, read by the registrar. */
export function GradeBook({ book }: { book: BookReply }) {
  const { path } = useScope();
  const draftId = `${book.sectionId}/${book.period.id}`;
  const draft = scoreDrafts.use(draftId);
  const drafts = draft?.now ?? noScoreDrafts;
  const read = useMemo(() => readDrafts(book, drafts), [book, drafts]);
  const newestFirst = useOwnView((view) => view.newestFirst);
  const groups = useMemo(() => bookColumns(book, newestFirst), [book, newestFirst]);
  const rowsWith = useMemo(() => createBookRows(book, policyOfBody(book.policy)), [book]);
  const rows = useMemo(() => rowsWith(read.facts), [rowsWith, read]);
  const save = useSaveScores(book.sectionId, book.period.id);
  const tellOfChange = useTellOfChange();
  const [search, setSearch] = useSearchParams();
  const [chosen, setChosen] = useState<number | null>(Number(search.get('student')) || null);
  const [opened, setOpened] = useState<{ assignment?: AssignmentReply; like?: AssignmentBody } | undefined>();
  const [isFilling, setFilling] = useState(false);
  const [isCategorising, setCategorising] = useState(false);
  const isExplaining = useDrawer(({ shown }) => shown !== null);
  const unsaved = Object.keys(drafts).length;
  const canSave =
    book.canEdit && read.changes.length > 0 && read.faults.size === 0 && read.stale.length === 0 && !save.isPending;
  const view = book.policy.levels && search.get('view') === 'standing' ? 'standing' : 'scores';

  const change = (next: typeof drafts) => scoreDrafts.change(draftId, null, noScoreDrafts, next);
  const store = () => {
    if (!canSave) return;
    const { changes } = read;
    save.mutate(
      { changes: [...changes] },
      {
        onSuccess: (after) => {
          change(withoutSent(after, scoreDrafts.get(draftId)?.now ?? noScoreDrafts, drafts));
          tellOfChange(`${counted(changes.length, 'score')} saved.`, after);
        },
        onError: (error) => !(error instanceof ProblemError && error.problem.errors.length > 0) && showProblem(error),
      },
    );
  };
  const explain = useCallback(
    (row: BookRow) =>
      openDrawer(
        'Workings',
        <div key={row.student.enrollmentId} className="space-y-4">
          <h3 className="text-[17px] leading-snug font-bold">{row.student.student}</h3>
          <GradeBookSum book={book} row={row} />
        </div>,
      ),
    [book],
  );
  const chosenRow = rows.find(({ student }) => student.enrollmentId === chosen) ?? rows[0];
  const toNextProblem = () => {
    const problems = rows.filter(hasProblem);
    const from = rows.findIndex(({ student }) => student.enrollmentId === chosen);
    const next = problems.find((row) => rows.indexOf(row) > from) ?? problems[0];
    if (next) setChosen(next.student.enrollmentId);
  };
  useKeys([
    { key: 'Ctrl+s', says: 'save the scores', inFields: true, act: store },
    { key: 'Ctrl+z', says: 'undo the last entry', act: () => scoreDrafts.undo(draftId) },
    {
      key: 'w',
      says: 'workings of the chosen student',
      act: () => (isExplaining ? closeDrawer() : chosenRow && explain(chosenRow)),
    },
    { key: 'n', says: 'the next student who is blocked or differs', act: toNextProblem },
  ]);
  // The drawer follows the chosen student, and shows what was just typed.
  useEffect(() => {
    if (isExplaining && chosenRow) explain(chosenRow);
  }, [chosenRow, explain, isExplaining]);
  useEffect(() => closeDrawer, []);
  const blocker = useBlocker(
    ({ currentLocation, nextLocation }) => unsaved > 0 && currentLocation.pathname !== nextLocation.pathname,
  );
  const blanks = blanksOf(book, rows);
  return (
    <Page
      headline={<BookHeadline book={book} rows={rows} read={read} unsaved={unsaved} />}
      actions={
        book.canEdit ? (
          <>
            <Button look="main" disabled={!canSave} onClick={store}>
              Save {unsaved > 0 ? unsaved : ''} <Key>Ctrl S</Key>
            </Button>
            <Button onClick={() => setOpened({})}>New assignment</Button>
            <Button onClick={() => setCategorising(true)}>Categories</Button>
            <Button disabled={blanks.length === 0} onClick={() => setFilling(true)}>
              Fill empty cells…
            </Button>
            <Button disabled={(draft?.undo.length ?? 0) === 0} onClick={() => scoreDrafts.undo(draftId)}>
              Undo last step
            </Button>
            {unsaved > 0 && <Button onClick={() => scoreDrafts.discard(draftId)}>Discard</Button>}
          </>
        ) : (
          <span className="text-[13px] text-quiet">
            {book.sealedAt ? 'Sealed: it is read only.' : `${showGivenFirst(book.teacher)} keeps it; you read it.`}
          </span>
        )
      }
      below={<LastRun sectionId={book.sectionId} />}
      aside={
        <span className="flex items-center gap-3">
          {book.item && (
            <Link
              to={path(`grade-sheets/${book.sectionId}/${book.item.id}`)}
              className="font-semibold text-eucalypt hover:underline"
            >
              Grade sheet
            </Link>
          )}
          {book.policy.levels && (
            <ViewSwitch
              label="View"
              views={views}
              chosen={view}
              onChoose={(next) => setSearch(next === 'scores' ? {} : { view: next })}
            />
          )}
        </span>
      }
    >
      <BookProblems
        book={book}
        error={save.error}
        drafts={drafts}
        read={read}
        onKeepMine={() => {
          save.reset();
          change(overTheirs(book, drafts));
        }}
      />
      <BookMatters book={book} rows={rows} />
      <Panel className="flex min-h-[300px] flex-1 flex-col">
        {book.assignments.length === 0 ? (
          <Empty title="No assignment yet">
            {book.canEdit
              ? 'Scores are typed in as soon as there is an assignment to score.'
              : `${showGivenFirst(book.teacher)} has made no assignment in ${book.period.name}, or keeps the book elsewhere.`}
            {book.canEdit && (
              <Button look="main" className="mt-4" onClick={() => setOpened({})}>
                New assignment
              </Button>
            )}
          </Empty>
        ) : view === 'standing' ? (
          <StandingTable book={book} rows={rows} groups={groups} onExplain={explain} />
        ) : (
          <BookGrid
            book={book}
            rows={rows}
            groups={groups}
            drafts={drafts}
            read={read}
            chosen={chosen}
            onChoose={setChosen}
            onEdit={(texts) => change(withScores(book, drafts, texts))}
            onExplain={explain}
            onOpenAssignment={(assignment) => setOpened({ assignment })}
          />
        )}
        {book.assignments.length > 0 && (
          <footer className="border-t border-hairline px-3 py-1.5 text-[12px] text-quiet">
            Each grade is {methodWords[book.policy.method]}, as set for {book.policyFrom}. Struck through: dropped.
            Grey: does not count.
            {book.canEdit &&
              ' Type points, or the first letter of missing, late, incomplete, exempt, absent, collected.'}
          </footer>
        )}
      </Panel>
      {opened && (
        <AssignmentDialog
          key={opened.assignment?.id ?? opened.like?.name ?? 'new'}
          book={book}
          assignment={opened.assignment}
          like={opened.like}
          onLike={(like) => setOpened({ like })}
          onClose={() => setOpened(undefined)}
        />
      )}
      {isFilling && (
        <FillScoresDialog
          blanks={blanks}
          onFill={({ id }, text) =>
            change(
              withScores(
                book,
                drafts,
                rows
                  .filter((row) => isBlankIn(row, id))
                  .map(({ student }) => ({ assignmentId: id, enrollmentId: student.enrollmentId, text })),
              ),
            )
          }
          onClose={() => setFilling(false)}
        />
      )}
      {isCategorising && <BookCategoriesDialog book={book} onClose={() => setCategorising(false)} />}
      <LeaveDialog blocker={blocker} unsaved={unsaved} onForget={() => scoreDrafts.discard(draftId)} />
    </Page>
  );
}
