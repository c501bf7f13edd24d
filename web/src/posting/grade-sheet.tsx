import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useBlocker, useSearchParams } from 'react-router';
import { useMay } from '../shell/access';
import { showGivenFirst } from '../ui/format';
import { CommentDialog } from './comment-dialog';
import { countRows } from './count-rows';
import { SheetBanners } from './sheet-banners';
import { SignOffDialog } from './sign-off-dialog';
import { useTellOfChange } from '../changes/use-tell-of-change';
import type { SheetReply } from '#contract/posting';
import { counted } from '#contract/messages';
import { closeDrawer, openDrawer, useDrawer } from '../shell/drawer-store';
import { ProblemNote } from '../shell/problem-note';
import { showProblem } from '../shell/show-problem';
import { Button } from '../ui/button';
import { SheetFindings } from '../audit/sheet-findings';
import { LastRun } from '../runs/last-run';
import { Page } from '../ui/page';
import { Panel } from '../ui/panel';
import { useKeys } from '../ui/use-keys';
import { FillBlanksDialog } from './fill-blanks-dialog';
import { HandOverDialog } from './hand-over-dialog';
import { LeaveDialog } from './leave-dialog';
import { changesOf, keepMarksOver, settleMarks } from './mark-drafts';
import { MarkWorkings } from './mark-workings';
import { postingNow } from './posting-now';
import { OutsideDialog } from './outside-dialog';
import { useSaveSheet, type SheetKey } from './queries';
import { SheetActions } from './sheet-actions';
import { useSheetWord } from './use-sheet-word';
import { ReceiptList } from './receipt-list';
import { SheetGrid, type SheetGridHandle } from './sheet-grid';
import { SheetHeadline } from './sheet-headline';
import { SheetSteps } from './sheet-steps';
import type { SheetRow } from './sheet-view';
import { useSheetDraft } from './use-sheet-draft';

/** The grade sheet: computed beside posted, problems in the notes, all saved at once. */
export function GradeSheet({ sheet, sheetKey }: { sheet: SheetReply; sheetKey: SheetKey }) {
  const sheetId = `${sheetKey.sectionId}/${sheetKey.itemId}/${sheetKey.periodId}`;
  const { drafts, rules, rows, entry, faults, unsaved, ...draft } = useSheetDraft(sheetId, sheet);
  const save = useSaveSheet(sheetKey);
  const tellOfChange = useTellOfChange();
  const [search] = useSearchParams();
  const [chosen, setChosen] = useState<number | null>(Number(search.get('student')) || null);
  const [isFilling, setFilling] = useState(false);
  const [isAsking, setAsking] = useState(false);
  const grid = useRef<SheetGridHandle>(null);
  const isReadOnly = sheet.sealedAt !== null || !sheet.mayPost || sheet.signedOff !== null;
  const { isOutside, mayPost, mayAsk } = postingNow(sheet, useMay()('post-outside-window'));
  const [commentOn, setCommentOn] = useState<number | null>(null);
  const word = useSheetWord(sheet, sheetKey, isOutside);
  const counts = useMemo(() => countRows(sheet, rows, rules), [sheet, rows, rules]);
  const names = useMemo(() => new Map(sheet.rows.map((each) => [each.enrollmentId, each.student])), [sheet]);
  const items = new Map([[sheet.itemId, sheet.itemName]]);
  const isExplaining = useDrawer(({ shown }) => shown !== null);
  const open = unsaved.length + faults.length;

  const post = () => {
    save.mutate(
      { changes: changesOf(drafts), ...(isOutside ? { outsideWindow: true } : {}) },
      {
        onSuccess: (saved) => {
          settleMarks(sheetId, drafts, saved);
          word.settle(drafts);
          tellOfChange(
            `${counted(saved.receipt?.changes.length ?? 0, 'grade')} saved. The receipt is below the sheet.`,
            saved,
          );
        },
        onError: showProblem,
      },
    );
  };
  const saveAll = () => {
    if (unsaved.length === 0 || save.isPending || isReadOnly) return;
    if (mayAsk) word.setHanding(true);
    else if (!mayPost) return;
    else if (isOutside) setAsking(true);
    else post();
  };
  const explain = useCallback(
    (row: SheetRow) =>
      openDrawer('Workings', <MarkWorkings key={row.reply.enrollmentId} row={row} sheet={sheet} rules={rules} />),
    [sheet, rules],
  );
  const chosenRow = rows.find(({ reply }) => reply.enrollmentId === chosen) ?? rows[0];
  const focusOn = (row: SheetRow | undefined) => row && grid.current?.goTo(rows.indexOf(row));
  const toNextProblem = () => {
    const isFaulty = new Set(faults.map(({ enrollmentId }) => enrollmentId));
    const problems = rows.filter(
      (row) => row.remarks.length > 0 || entry.blanks.includes(row) || isFaulty.has(row.reply.enrollmentId),
    );
    const from = rows.findIndex(({ reply }) => reply.enrollmentId === chosen);
    focusOn(problems.find((row) => rows.indexOf(row) > from) ?? problems[0]);
  };
  const commented = rows.find(({ reply }) => reply.enrollmentId === commentOn);
  const stepComment = (by: 1 | -1) => {
    const graded = rows.filter(({ reply }) => reply.withdrawnOn === null);
    const next = graded[graded.findIndex(({ reply }) => reply.enrollmentId === commentOn) + by];
    if (!next) return;
    setCommentOn(next.reply.enrollmentId);
    focusOn(next);
  };
  const step = (by: number) => () =>
    focusOn(rows[Math.max(0, rows.findIndex(({ reply }) => reply.enrollmentId === chosen) + by)]);
  useKeys([
    { key: 'Ctrl+s', says: 'save the sheet', inFields: true, act: saveAll },
    { key: 'Ctrl+z', says: 'undo the last entry', act: draft.undo },
    {
      key: 'w',
      says: 'workings of the chosen student',
      act: () => (isExplaining ? closeDrawer() : chosenRow && explain(chosenRow)),
    },
    { key: 'n', says: 'the next problem', act: toNextProblem },
    {
      key: 'r',
      says: 'return the selected students to what is computed',
      act: () => !isReadOnly && draft.takeComputed(grid.current?.selected() ?? []),
    },
    {
      key: '=',
      says: 'take the proposed last date for the selected students',
      act: () => !isReadOnly && entry.takeDays(grid.current?.selected() ?? []),
    },
    ...(sheet.commentRule === 'none'
      ? []
      : [
          {
            key: 'm',
            says: 'comment on the chosen student',
            act: () => chosenRow && setCommentOn(chosenRow.reply.enrollmentId),
          },
        ]),
    { key: 'j', says: 'the next row', act: step(1) },
    { key: 'k', says: 'the row before', act: step(-1) },
  ]);
  // The drawer follows the chosen student, and shows what was just typed.
  useEffect(() => {
    if (isExplaining && chosenRow) explain(chosenRow);
  }, [chosenRow, explain, isExplaining]);
  useEffect(() => {
    focusOn(rows.find(({ reply }) => reply.enrollmentId === Number(search.get('student'))));
    return closeDrawer;
    // eslint-disable-next-line react-hooks/exhaustive-deps -- only when the sheet is opened
  }, []);
  const blocker = useBlocker(
    ({ currentLocation, nextLocation }) => open > 0 && currentLocation.pathname !== nextLocation.pathname,
  );
  return (
    <Page
      headline={<SheetHeadline sheet={sheet} rows={rows} blanks={entry.blanks.length} onProblem={toNextProblem} />}
      actions={
        <SheetActions
          sheet={sheet}
          entry={entry}
          isReadOnly={isReadOnly}
          canSave={unsaved.length > 0 && !save.isPending && !isReadOnly && (mayPost || mayAsk)}
          unsaved={unsaved.length}
          isOpen={open > 0}
          canUndo={draft.canUndo}
          mustAsk={mayAsk}
          maySignOff={mayPost}
          onSave={saveAll}
          onFill={() => setFilling(true)}
          onUndo={draft.undo}
          onSignOff={() => word.setSigning(true)}
        />
      }
      aside={
        <SheetSteps
          sheetKey={sheetKey}
          hasBook={sheet.rows.every(({ composite }) => composite === null)}
          isStandard={sheet.itemKind === 'standard'}
        />
      }
      below={<LastRun sectionId={sheet.sectionId} />}
    >
      <ProblemNote error={save.error}>
        {(code) =>
          code === 'grades-changed' && (
            <Button onClick={() => keepMarksOver(sheetId, sheet)}>Keep mine over theirs</Button>
          )
        }
      </ProblemNote>
      <SheetBanners
        sheet={sheet}
        onTakeBack={sheet.mayPost && sheet.sealedAt === null && mayPost ? word.takeBack : undefined}
        onPutOnSheet={entry.putRequest}
        onAnswer={word.answer}
      />
      <SheetFindings
        periodId={sheetKey.periodId}
        sectionId={sheetKey.sectionId}
        items={items}
        nameOf={names}
        onStudent={(id) => focusOn(rows.find(({ reply }) => reply.enrollmentId === id))}
      />
      <Panel
        className={`flex min-h-[220px] flex-1 flex-col overflow-hidden ${isOutside ? 'border-t-4 border-t-wattle-fill' : ''}`}
      >
        <SheetGrid
          ref={grid}
          sheet={sheet}
          rows={rows}
          faults={faults}
          isReadOnly={isReadOnly}
          chosen={chosen}
          onChoose={setChosen}
          onEdit={draft.edit}
          onTakeComputed={(row) => draft.takeComputed([row])}
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
      <SignOffDialog
        isOpen={word.isSigning && sheet.signedOff === null}
        onOpenChange={word.setSigning}
        sheetName={`${sheet.itemName} of ${sheet.section}, ${sheet.period.name}`}
        counts={counts}
        onBehalfOf={sheet.onBehalfOf && showGivenFirst(sheet.onBehalfOf)}
        isPending={word.isPending}
        onSignOff={word.sign}
      />
      <HandOverDialog
        isOpen={word.isHanding}
        onOpenChange={word.setHanding}
        grades={unsaved.length}
        periodName={sheet.period.name}
        onHandOver={(note) => word.handOver(changesOf(drafts), note, draft.discard)}
      />
      {commented && (
        <CommentDialog
          sheet={sheet}
          row={commented}
          isReadOnly={isReadOnly}
          onClose={() => setCommentOn(null)}
          onComment={entry.comment}
          onStep={stepComment}
        />
      )}
      <LeaveDialog blocker={blocker} unsaved={open} onForget={draft.discard} />
    </Page>
  );
}
