import { useCallback, useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { toast } from 'sonner';
import { coverage, type Assignment } from '#core/report-items';
import type {
  ItemRulesBody,
  CoveredCourseReply,
  ExceptionBody,
  ItemReply,
  ReportItemsReply,
  RuleBody,
} from '#contract/report-items';
import { useTellOfChange } from '../changes/use-tell-of-change';
import { Awaited } from '../shell/awaited';
import { Changeable } from '../ui/changeable';
import { PageFace } from '../shell/awaited-page';
import { showProblem } from '../shell/show-problem';
import { usePeriod, useScope } from '../shell/scope';
import { StockCommentsDialog } from '../posting/stock-comments-dialog';
import { SetUpNote } from '../set-up/set-up-note';
import { searchWith } from '../ui/address/search-with';
import { Button, Key } from '../ui/button';
import { Note, Panel } from '../ui/panel';
import { Page } from '../ui/page';
import { RuleSquare } from '../ui/state-marks';
import { useKeys } from '../ui/use-keys';
import { assignmentDrafts } from './assignment-drafts';
import { AssignmentEffect } from './assignment-effect';
import { CompositePanel } from './composite-panel';
import { CoverageTable } from './coverage-table';
import { ItemDialog } from './item-dialog';
import { CoverageFilter } from './coverage-filter';
import { ItemsHeadline, filterOf } from './items-headline';
import { useAssignmentPreview, useOrderItems, useReportItems, useSaveAssignment } from './queries';
import { ReportCard } from './report-card';
import { RuleList } from './rule-list';

/** What report cards show, the rules that give it to courses, and which courses have it. */
export function ReportItemsPage() {
  const { schoolId } = useScope();
  const { termLine } = usePeriod();
  const items = useReportItems(schoolId);
  const { data: reply } = items;
  if (!reply || !termLine) return <PageFace queries={[items]} />;
  return <ReportItemsDesk key={schoolId} reply={reply} schoolId={schoolId} schoolName={termLine.school.shortName} />;
}

interface DeskProps {
  readonly reply: ReportItemsReply;
  readonly schoolId: number;
  readonly schoolName: string;
}

function ReportItemsDesk({ reply, schoolId, schoolName }: DeskProps) {
  const periodKind = usePeriod().period?.kind;
  const [search, setSearch] = useSearchParams();
  const [isCommenting, setCommenting] = useState(false);
  const [edited, setEdited] = useState<ItemReply | 'new' | undefined>();
  const save = useSaveAssignment(schoolId);
  const order = useOrderItems(schoolId);
  const tellOfChange = useTellOfChange();
  const saved = useMemo((): ItemRulesBody => ({ rules: [...reply.rules], exceptions: [...reply.exceptions] }), [reply]);
  const draft = assignmentDrafts.use(schoolId, saved);
  const assignment = draft?.now ?? saved;
  const preview = useAssignmentPreview(schoolId, draft?.now);
  const chosen =
    reply.items.find(({ id }) => id === Number(search.get('item'))) ??
    reply.items.find(({ source }) => source === 'composite');
  const isStale = draft !== undefined && draft.basedOn !== reply.revision;

  const change = useCallback(
    (now: Partial<ItemRulesBody>) =>
      assignmentDrafts.change(schoolId, reply.revision, saved, { ...assignment, ...now }),
    [schoolId, reply.revision, saved, assignment],
  );
  const addRule = (item: ItemReply | undefined) => change({ rules: [...assignment.rules, newRule(reply, item)] });
  const changeExceptions = useCallback((exceptions: ExceptionBody[]) => change({ exceptions }), [change]);
  const canSave = draft !== undefined && !isStale && !save.isPending;
  const saveDraft = () => {
    if (!canSave) return;
    const sent = draft.now;
    save.mutate(
      { ...sent, revision: draft.basedOn },
      {
        onSuccess: (after) => {
          assignmentDrafts.settle(schoolId, sent, after.revision);
          tellOfChange('The rules and exceptions are saved.', after);
        },
        onError: showProblem,
      },
    );
  };
  useKeys([
    { key: 'Ctrl+s', says: 'save the rules and exceptions', inFields: true, act: saveDraft },
    { key: 'u', says: 'undo the last step of the draft', act: () => assignmentDrafts.undo(schoolId) },
  ]);
  const previewed = useMemo(
    () => (draft && preview.data ? new Map(preview.data.courses.map(({ id, covers }) => [id, covers])) : undefined),
    [draft, preview.data],
  );
  const decides = useMemo(() => countDecided(reply, assignment), [reply, assignment]);
  const filter = useMemo(() => filterOf(search, reply), [search, reply]);
  return (
    <Page
      headline={<ItemsHeadline reply={reply} assignment={assignment} />}
      actions={
        draft ? (
          <>
            <Button look="main" disabled={!canSave} onClick={saveDraft}>
              Save rules and exceptions <Key>Ctrl S</Key>
            </Button>
            <Button writes onClick={() => addRule(chosen)}>
              New rule
            </Button>
            <Button writes onClick={() => assignmentDrafts.undo(schoolId)}>
              Undo last step
            </Button>
            <Button writes onClick={() => assignmentDrafts.discard(schoolId)}>
              Discard
            </Button>
          </>
        ) : (
          <>
            <Button look="main" onClick={() => setEdited('new')}>
              New item
            </Button>
            <Button writes disabled={reply.items.length === 0} onClick={() => addRule(chosen)}>
              New rule
            </Button>
            <Button writes onClick={() => setCommenting(true)}>
              Stock comments…
            </Button>
            {chosen && (
              <Button writes onClick={() => setEdited(chosen)}>
                Edit {chosen.name}
              </Button>
            )}
          </>
        )
      }
      aside={<Legend />}
    >
      <SetUpNote place="report-items" />
      <Panel label="Report card" className={reply.items.length === 0 ? 'hidden' : ''}>
        <ReportCard
          reply={reply}
          chosenId={chosen?.id}
          onChoose={(item) =>
            item.id === chosen?.id
              ? setEdited(item)
              : setSearch((before) => searchWith(before, { item: String(item.id) }))
          }
          onMove={(item, by) => {
            const ids = reply.items.map(({ id }) => id);
            const at = ids.indexOf(item.id);
            order.mutate(
              { itemIds: ids.toSpliced(at, 1).toSpliced(at + by, 0, item.id), seen: ids },
              { onSuccess: (after) => tellOfChange(`${item.name} is moved.`, after), onError: showProblem },
            );
          }}
        />
        {chosen?.source === 'composite' && (
          <div className="border-t border-hairline">
            <CompositePanel item={chosen} reply={reply} />
          </div>
        )}
      </Panel>
      <div className="grid flex-1 gap-3.5 min-[1140px]:min-h-[360px] min-[1140px]:grid-cols-[minmax(300px,360px)_minmax(0,1fr)]">
        <div className="space-y-2.5 min-[1140px]:overflow-auto">
          {isStale && (
            <Note tone="blocks" title="Someone else saved the rules">
              <p>The squares compare your draft with what is saved now.</p>
              <Button onClick={() => assignmentDrafts.rebase(schoolId, reply.revision)}>
                Go on from what is saved
              </Button>
            </Note>
          )}
          {draft && (
            <Awaited query={preview} waiting="Working out what it would do">
              {(data) => <AssignmentEffect preview={data} reply={reply} />}
            </Awaited>
          )}
          <Changeable>
            <RuleList
              rules={assignment.rules}
              savedRules={saved.rules}
              reply={reply}
              schoolName={schoolName}
              decides={decides}
              onChange={(rules) => change({ rules })}
            />
          </Changeable>
          <p className="px-1 text-[12px] text-quiet">
            Where rules meet, the later one decides; an exception decides before all of them. Drag a rule by its number.
          </p>
        </div>
        <Panel className="flex min-h-[360px] flex-col min-[1140px]:min-h-0">
          <CoverageFilter reply={reply} />
          <CoverageTable
            reply={reply}
            previewed={previewed}
            assignment={assignment}
            filter={filter}
            onChange={changeExceptions}
          />
        </Panel>
      </div>
      {isCommenting && <StockCommentsDialog schoolId={schoolId} onClose={() => setCommenting(false)} />}
      {edited && (
        <ItemDialog
          schoolId={schoolId}
          reply={reply}
          item={edited === 'new' ? undefined : edited}
          periodKind={periodKind}
          onClose={() => setEdited(undefined)}
          onAdded={(item) => {
            setSearch((before) => searchWith(before, { item: String(item.id), show: null }));
            toast.success(`${item.name} is added. No course reports it yet: give it a rule.`, {
              action: { label: 'Add a rule', onClick: () => addRule(item) },
            });
          }}
        />
      )}
    </Page>
  );
}

function newRule(reply: ReportItemsReply, chosen: ItemReply | undefined): RuleBody {
  const itemId = chosen?.id ?? reply.items[0]!.id;
  return { itemId, effect: 'reports', department: null, level: null, kind: null, length: null };
}

/** How many courses each rule has the last word on. */
function countDecided({ courses }: ReportItemsReply, { rules, exceptions }: ItemRulesBody): number[] {
  const numbered: Assignment = {
    rules: rules.map((rule, index) => ({ ...rule, id: index, schoolId: 0, position: index })),
    exceptions: exceptions.map((exception, index) => ({ ...exception, id: index })),
  };
  const all = coverage(courses.map(courseOf), numbered).flatMap(({ covers }) => covers);
  return rules.map((_rule, index) => all.filter(({ by }) => by.kind === 'rule' && by.id === index).length);
}

function courseOf(course: CoveredCourseReply) {
  const nothing = { units: 0n, digits: 0 };
  return { ...course, schoolId: 0, credits: nothing, mostCredits: null, countsInGpa: false, allowsExempt: true };
}

function Legend() {
  return (
    <span className="flex items-center gap-3.5">
      {(
        [
          ['rule', 'by rule'],
          ['exception', 'exception'],
          ['omitted', 'omitted'],
          ['added', 'would come'],
          ['removed', 'would go'],
        ] as const
      ).map(([look, words]) => (
        <span key={look} className="flex items-center gap-1.5">
          <RuleSquare look={look} label={words} /> {words}
        </span>
      ))}
    </span>
  );
}
