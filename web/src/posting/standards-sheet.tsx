import { useCallback, useRef, useState } from 'react';
import { useBlocker } from 'react-router';
import { addCounts, noCounts } from '#core/board';
import type { SheetReply } from '#contract/posting';
import { counted } from '#contract/messages';
import { useTellOfChange } from '../changes/use-tell-of-change';
import { openDrawer } from '../shell/drawer-store';
import { ProblemNote } from '../shell/problem-note';
import { showProblem } from '../shell/show-problem';
import { Button } from '../ui/button';
import { showGivenFirst } from '../ui/format';
import { Page, Strong } from '../ui/page';
import { Panel } from '../ui/panel';
import { useKeys } from '../ui/use-keys';
import { usePeriod } from '../shell/scope';
import { useMay } from '../shell/access';
import { LeaveDialog } from './leave-dialog';
import { changesOf, settleMarks } from './mark-drafts';
import { MarkWorkings } from './mark-workings';
import { postingNow } from './posting-now';
import { useWindowNow } from './use-window-now';
import { WindowSentence } from './window-sentence';
import { OutsideDialog } from './outside-dialog';
import { countRows } from './count-rows';
import { HandOverDialog } from './hand-over-dialog';
import { useSaveStandards } from './queries';
import { SaveButton } from './save-button';
import { SignOffDialog } from './sign-off-dialog';
import { entryRulesOf } from './sheet-view';
import { StandardsGrid, type StandardsGridHandle } from './standards-grid';
import { StandardsNotes } from './standards-notes';
import { useStandardsDraft } from './use-standards-draft';
import { useStandardsWord } from './use-standards-word';

interface StandardsSheetProps {
  readonly sheets: readonly SheetReply[];
  readonly sectionId: number;
  readonly periodId: number;
}

/** Students beside the standards of their section, one level each, and a comment; all saved at once. */
export function StandardsSheet({ sheets, sectionId, periodId }: StandardsSheetProps) {
  const draft = useStandardsDraft(sheets);
  const { standards, unsaved, faults } = draft;
  const save = useSaveStandards(sectionId, periodId);
  const tellOfChange = useTellOfChange();
  const [isAsking, setAsking] = useState(false);
  const grid = useRef<StandardsGridHandle>(null);
  const [at, setAt] = useState({ row: 0, column: 0 });
  const [first] = sheets as [SheetReply];
  const mayOutside = useMay()('post-outside-window');
  const moments = sheets.map((sheet) => postingNow(sheet, mayOutside));
  const isOutside = moments.some((each) => each.isOutside);
  const mayPost = moments.every((each) => each.mayPost);
  // Where posting is over for one of them, all of it goes to a registrar: what was typed together stays together.
  const mayAsk = !mayPost && moments.every((each) => each.mayPost || each.mayAsk);
  const word = useStandardsWord({ sectionId, periodId, section: first.section, isOutside });
  const now = useWindowNow(
    usePeriod().termLine?.now,
    sheets.map(({ window }) => window),
    ['standards'],
  );
  const isReadOnly = sheets.some((sheet) => sheet.sealedAt !== null || !sheet.mayPost);
  const students = first.rows.filter(({ withdrawnOn }) => withdrawnOn === null).length;
  const blanks = standards.reduce((sum, { entry }) => sum + entry.blanks.length, 0);
  const computed = standards.reduce((sum, { entry }) => sum + entry.computedBlanks.length, 0);
  const open = unsaved + faults.length;

  const toSign = standards.filter(({ sheet }) => sheet.signedOff === null);
  const counts = toSign
    .map(({ sheet, rows }) => countRows(sheet, rows, entryRulesOf(sheet)))
    .reduce((sum, own) => addCounts(sum, own), noCounts);

  const changed = standards.filter(({ drafts }) => Object.keys(drafts).length > 0);
  const sent = changed.map(({ sheet, drafts }) => ({ itemId: sheet.itemId, changes: changesOf(drafts) }));
  const post = () => {
    save.mutate(
      { sheets: sent, ...(isOutside ? { outsideWindow: true } : {}) },
      {
        onSuccess: (saved) => {
          for (const [index, { id, drafts }] of changed.entries()) settleMarks(id, drafts, saved.sheets[index]!);
          word.settle(changed.map(({ drafts }) => drafts));
          const grades = saved.sheets.reduce((sum, { receipt }) => sum + (receipt?.changes.length ?? 0), 0);
          tellOfChange(`${counted(grades, 'grade')} saved.`, saved);
        },
        onError: showProblem,
      },
    );
  };
  const canSave = unsaved > 0 && !save.isPending && !isReadOnly && (mayPost || mayAsk);
  const saveAll = () => {
    if (!canSave) return;
    if (mayAsk) word.setHanding(true);
    else if (isOutside) setAsking(true);
    else post();
  };
  const explain = useCallback(() => {
    const standard = standards[Math.min(at.column, standards.length - 1)]!;
    const row = standard.rows[at.row];
    if (row)
      openDrawer(
        'Workings',
        <MarkWorkings
          key={row.reply.enrollmentId}
          row={row}
          sheet={standard.sheet}
          rules={entryRulesOf(standard.sheet)}
        />,
      );
  }, [standards, at]);
  useKeys([
    { key: 'Ctrl+s', says: 'save the sheet', inFields: true, act: saveAll },
    { key: 'Ctrl+z', says: 'undo the last entry', act: draft.undo },
    { key: 'w', says: 'workings of the chosen level', act: explain },
  ]);
  const standard = standards[at.column];
  const noted = standard?.rows[at.row]?.remarks.map(({ says }) => `${standard.sheet.itemName}: ${says}`).join(' ');
  const blocker = useBlocker(
    ({ currentLocation, nextLocation }) => open > 0 && currentLocation.pathname !== nextLocation.pathname,
  );
  return (
    <Page
      headline={
        <>
          Posting <Strong>{counted(standards.length, 'standard')}</Strong> of{' '}
          <Strong tone={isOutside ? 'warns' : 'so'}>{first.period.name}</Strong> for {first.section}:{' '}
          {students * standards.length - blanks} of {students * standards.length} levels done
          {unsaved > 0 && (
            <>
              , <Strong tone="warns">{unsaved} unsaved</Strong>
            </>
          )}
          . {first.sealedAt === null && <WindowSentence sheet={first} now={now} />}
        </>
      }
      actions={
        <>
          <SaveButton unsaved={unsaved} canSave={canSave} mustAsk={mayAsk} onSave={saveAll} />
          <Button disabled={isReadOnly || computed === 0} onClick={draft.takeComputed}>
            Use computed for {counted(computed, 'blank')}
          </Button>
          <Button disabled={unsaved === 0} onClick={draft.undo}>
            Undo last step
          </Button>
          {toSign.length > 0 && !isReadOnly && mayPost && (
            <Button writes disabled={open > 0} onClick={() => word.setSigning(true)}>
              Sign off…
            </Button>
          )}
        </>
      }
      below={
        (first.onBehalfOf ? `You post on behalf of ${showGivenFirst(first.onBehalfOf)}; the record says so. ` : '') +
        'A figure fills the level and goes on to the next student. The small figure is what the grade book computes.'
      }
    >
      <ProblemNote error={save.error}>
        {(code) => code === 'grades-changed' && <Button onClick={draft.keepMine}>Keep mine over theirs</Button>}
      </ProblemNote>
      <StandardsNotes
        sheets={sheets}
        onPutOnSheet={(request) => {
          for (const asked of request.asked)
            standards.find(({ sheet }) => sheet.itemId === asked.itemId)!.entry.putRequest(asked);
        }}
        onAnswer={word.answer}
        onCell={(enrollmentId, itemId) => {
          const row = first.rows.findIndex((each) => each.enrollmentId === enrollmentId);
          const column = sheets.findIndex((sheet) => sheet.itemId === itemId);
          if (row !== -1) grid.current?.goTo(row, Math.max(0, column));
        }}
      />
      <Panel
        className={`flex min-h-[220px] flex-1 flex-col overflow-hidden ${isOutside ? 'border-t-4 border-t-wattle-fill' : ''}`}
      >
        <StandardsGrid
          ref={grid}
          draft={draft}
          isReadOnly={isReadOnly}
          onReach={(row, column) => setAt({ row, column })}
        />
        <p role="status" className="min-h-8 shrink-0 border-t border-hairline px-2.5 py-1.5 text-[13px] text-quiet">
          {noted}
        </p>
      </Panel>
      <OutsideDialog
        isOpen={isAsking}
        onOpenChange={setAsking}
        itemName={counted(standards.length, 'standard')}
        periodName={first.period.name}
        onPost={post}
      />
      <SignOffDialog
        isOpen={word.isSigning}
        onOpenChange={word.setSigning}
        sheetName={`${counted(toSign.length, 'standard')} of ${first.section}, ${first.period.name}`}
        counts={counts}
        onBehalfOf={first.onBehalfOf && showGivenFirst(first.onBehalfOf)}
        isPending={word.isPending}
        onSignOff={(note) =>
          word.sign(
            toSign.map(({ sheet }) => sheet.itemId),
            note,
          )
        }
      />
      <HandOverDialog
        isOpen={word.isHanding}
        onOpenChange={word.setHanding}
        grades={unsaved}
        periodName={first.period.name}
        onHandOver={(note) => word.handOver({ sheets: sent, note }, draft.discard)}
      />
      <LeaveDialog blocker={blocker} unsaved={open} onForget={draft.discard} />
    </Page>
  );
}
