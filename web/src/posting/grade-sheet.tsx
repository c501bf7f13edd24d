import { useCallback, useEffect, useMemo, useState } from 'react';
import { Link, useBlocker, useSearchParams } from 'react-router';
import { toast } from 'sonner';
import { useTellOfChange } from '../changes/use-tell-of-change';
import type { SheetReply } from '#contract/posting';
import { closeDrawer, openDrawer, useDrawer } from '../shell/drawer-store';
import { ProblemError } from '../shell/api';
import { showProblem } from '../shell/show-problem';
import { useScope } from '../shell/scope';
import { Button, Key } from '../ui/button';
import { plural } from '../ui/format';
import { LastRun } from '../runs/last-run';
import { Page } from '../ui/page';
import { Note, Panel } from '../ui/panel';
import { useKeys } from '../ui/use-keys';
import { FillBlanksDialog } from './fill-blanks-dialog';
import { LeaveDialog } from './leave-dialog';
import { clearMarks, draftsOf, undoMarks, useMarkDrafts } from './mark-drafts';
import { MarkWorkings } from './mark-workings';
import { OutsideDialog } from './outside-dialog';
import { useSaveSheet, useSheets, type SheetKey } from './queries';
import { ReceiptList } from './receipt-list';
import { SheetGrid } from './sheet-grid';
import { SheetHeadline } from './sheet-headline';
import { entryRulesOf, sheetRows, type SheetRow } from './sheet-view';
import { createSheetEntry } from './sheet-entry';

/** The grade sheet: computed beside posted, problems in the margin, all saved at once. */
export function GradeSheet({ sheet, sheetKey }: { sheet: SheetReply; sheetKey: SheetKey }) {
  const sheetId = `${sheetKey.sectionId}/${sheetKey.itemId}/${sheetKey.periodId}`;
  const allDrafts = useMarkDrafts();
  const drafts = draftsOf(allDrafts, sheetId);
  const rules = useMemo(() => entryRulesOf(sheet), [sheet]);
  const rows = useMemo(() => sheetRows(sheet, drafts, rules), [sheet, drafts, rules]);
  const entry = createSheetEntry(sheetId, sheet, rows, rules);
  const save = useSaveSheet(sheetKey);
  const tellOfChange = useTellOfChange();
  const [search] = useSearchParams();
  const [chosen, setChosen] = useState<number | null>(Number(search.get('student')) || null);
  const [isFilling, setFilling] = useState(false);
  const [isAsking, setAsking] = useState(false);
  const unsaved = rows.filter(({ isUnsaved }) => isUnsaved);
  const isOutside = sheet.window?.state !== 'open';
  const isReadOnly = sheet.sealedAt !== null;
  const isExplaining = useDrawer(({ shown }) => shown !== null);

  const post = () => {
    const changes = unsaved.map(({ reply: { enrollmentId } }) => {
      const { mark, version } = drafts.marks[enrollmentId]!;
      return { ...mark, enrollmentId, version };
    });
    save.mutate(
      { changes, ...(isOutside ? { outsideWindow: true } : {}) },
      {
        onSuccess: (saved) => {
          clearMarks(sheetId);
          tellOfChange(
            `${plural(saved.receipt?.changes.length ?? 0, 'grade')} saved. The receipt stands below the sheet.`,
            saved,
          );
        },
        onError: showProblem,
      },
    );
  };
  const saveAll = () => {
    if (unsaved.length === 0 || save.isPending) return;
    if (isOutside) setAsking(true);
    else post();
  };
  const explain = useCallback(
    (row: SheetRow) =>
      openDrawer('Workings', <MarkWorkings key={row.reply.enrollmentId} row={row} sheet={sheet} rules={rules} />),
    [sheet, rules],
  );
  const chosenRow = rows.find(({ reply }) => reply.enrollmentId === chosen) ?? rows[0];
  const focusOn = (row: SheetRow) => {
    setChosen(row.reply.enrollmentId);
    document.querySelector<HTMLInputElement>(`[data-cell="${rows.indexOf(row)}/percent"]`)?.focus();
  };
  const toNextProblem = () => {
    const problems = rows.filter((row) => row.remarks.length > 0 || entry.blanks.includes(row));
    const from = rows.findIndex(({ reply }) => reply.enrollmentId === chosen);
    const next = problems.find((row) => rows.indexOf(row) > from) ?? problems[0];
    if (next) focusOn(next);
  };
  const step = (by: number) => () => {
    const next = rows[Math.max(0, rows.findIndex(({ reply }) => reply.enrollmentId === chosen) + by)];
    if (next) focusOn(next);
  };
  useKeys([
    { key: 'Ctrl+s', says: 'save the sheet', inFields: true, act: saveAll },
    { key: 'Ctrl+z', says: 'undo the last entry', act: () => undoMarks(sheetId) },
    {
      key: 'w',
      says: 'workings of the chosen student',
      act: () => (isExplaining ? closeDrawer() : chosenRow && explain(chosenRow)),
    },
    { key: 'n', says: 'the next problem', act: toNextProblem },
    { key: 'j', says: 'the next row', act: step(1) },
    { key: 'k', says: 'the row before', act: step(-1) },
  ]);
  // The drawer follows the chosen student, and shows what was just typed.
  useEffect(() => {
    if (isExplaining && chosenRow) explain(chosenRow);
  }, [chosenRow, explain, isExplaining]);
  useEffect(() => {
    const asked = rows.find(({ reply }) => reply.enrollmentId === Number(search.get('student')));
    if (asked) focusOn(asked);
    return closeDrawer;
    // eslint-disable-next-line react-hooks/exhaustive-deps -- only when the sheet is opened
  }, []);
  const blocker = useBlocker(
    ({ currentLocation, nextLocation }) => unsaved.length > 0 && currentLocation.pathname !== nextLocation.pathname,
  );
  const problem = save.error instanceof ProblemError ? save.error.problem : undefined;
  return (
    <Page
      headline={<SheetHeadline sheet={sheet} rows={rows} blanks={entry.blanks.length} onProblem={toNextProblem} />}
      actions={
        <>
          <Button look="main" disabled={unsaved.length === 0 || save.isPending || isReadOnly} onClick={saveAll}>
            Save {unsaved.length > 0 ? unsaved.length : ''} <Key>Ctrl S</Key>
          </Button>
          <Button disabled={isReadOnly || entry.computedBlanks.length === 0} onClick={entry.takeComputedForBlanks}>
            Take computed for {plural(entry.computedBlanks.length, 'blank')}
          </Button>
          <Button disabled={isReadOnly || entry.blanks.length === 0} onClick={() => setFilling(true)}>
            Fill empty cells…
          </Button>
          <Button disabled={drafts.undo.length === 0} onClick={() => undoMarks(sheetId)}>
            Undo last step
          </Button>
        </>
      }
      aside={<SheetSteps sheetKey={sheetKey} hasBook={sheet.rows.every(({ composite }) => composite === null)} />}
      below={<LastRun sectionId={sheet.sectionId} />}
    >
      {problem && problem.errors.length > 0 && (
        <div role="alert">
          <Note tone="blocks" title={problem.title}>
            <p>{problem.detail}</p>
            {problem.errors.map(({ field, detail }) => (
              <p key={field + detail}>{detail}</p>
            ))}
            {problem.code === 'grades-changed' && (
              <Button onClick={() => keepMine(sheetId, rows)}>Keep mine over theirs</Button>
            )}
          </Note>
        </div>
      )}
      <Panel
        label="Grade sheet"
        className={`min-h-0 flex-1 overflow-auto ${isOutside ? 'border-t-4 border-t-wattle-fill' : ''}`}
      >
        <SheetGrid
          sheet={sheet}
          rows={rows}
          isReadOnly={isReadOnly}
          chosen={chosen}
          onChoose={setChosen}
          onEnter={entry.enter}
          onPaste={(row, column, block) => entry.paste(row, column, block).forEach((fault) => toast.error(fault))}
          onTakeComputed={entry.takeComputed}
          onExplain={explain}
        />
        <ReceiptList receipts={sheet.receipts} />
      </Panel>
      <FillBlanksDialog
        isOpen={isFilling}
        onOpenChange={setFilling}
        blanks={entry.blanks.length}
        onFill={entry.fillBlanks}
      />
      <OutsideDialog
        isOpen={isAsking}
        onOpenChange={setAsking}
        itemName={sheet.itemName}
        periodName={sheet.period.name}
        onPost={post}
      />
      <LeaveDialog blocker={blocker} unsaved={unsaved.length} onForget={() => clearMarks(sheetId)} />
    </Page>
  );
}

/** Lets the drafts stand on the versions that somebody else saved meanwhile. */
function keepMine(sheetId: string, rows: readonly SheetRow[]): void {
  const versions = new Map(rows.map(({ reply }) => [reply.enrollmentId, reply.version]));
  useMarkDrafts.setState(({ sheets }) => {
    const { marks, undo } = draftsOf({ sheets }, sheetId);
    const kept = Object.entries(marks).map(([id, draft]) => [
      id,
      { ...draft, version: versions.get(Number(id)) ?? draft.version },
    ]);
    return { sheets: { ...sheets, [sheetId]: { marks: Object.fromEntries(kept), undo } } };
  });
}

/** The section's grade book, and the sheets before and after this one. */
function SheetSteps({
  sheetKey: { sectionId, itemId, periodId },
  hasBook,
}: {
  sheetKey: SheetKey;
  /** A composite is made of other grades, not of scores. */
  hasBook: boolean;
}) {
  const { path } = useScope();
  const { data: lists } = useSheets(periodId);
  const sheets = lists?.find((list) => list.itemId === itemId)?.sheets ?? [];
  const at = sheets.findIndex((sheet) => sheet.sectionId === sectionId);
  const link = (sheet: (typeof sheets)[number] | undefined, arrow: 'before' | 'after') =>
    sheet && (
      <Link
        to={path(`grade-sheets/${sheet.sectionId}/${itemId}`)}
        className="rounded-md px-2 py-1 font-semibold hover:bg-eucalypt-soft"
      >
        {arrow === 'before' ? `◂ ${sheet.section}` : `${sheet.section} ▸`}
      </Link>
    );
  return (
    <span className="flex items-center justify-end gap-1">
      {hasBook && (
        <Link
          to={path(`grade-books/${sectionId}`)}
          className="rounded-md px-2 py-1 font-semibold text-eucalypt hover:bg-eucalypt-soft"
        >
          Grade book
        </Link>
      )}
      {link(sheets[at - 1], 'before')}
      {link(sheets[at + 1], 'after')}
    </span>
  );
}
