import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { toast } from 'sonner';
import type { RuleChoicesBody } from '#contract/report-items';
import { showProblem } from '../shell/show-problem';
import { usePeriod, useScope } from '../shell/scope';
import { Button, Key } from '../ui/button';
import { plural, showCount, showPrecision } from '../ui/format';
import { FigureButton, Page, Strong } from '../ui/page';
import { Empty, Panel } from '../ui/panel';
import { RuleSquare } from '../ui/state-marks';
import { useKeys } from '../ui/use-keys';
import { CoverageTable } from './coverage-table';
import { useChangeRule, useReportItems, useRulePreview } from './queries';
import { RuleEffect } from './rule-effect';
import { RuleSentence } from './rule-sentence';

/** The item that report cards show, the rule that gives it to courses, and which courses have it. */
export function ReportItemsPage() {
  const { schoolId } = useScope();
  const { termLine } = usePeriod();
  const { data: reply } = useReportItems(schoolId);
  const [draft, setDraft] = useState<RuleChoicesBody | undefined>();
  const [search, setSearch] = useSearchParams();
  const rule = reply?.rules[0];
  const item = reply?.items[0];
  const preview = useRulePreview(rule?.id ?? 0, draft);
  const change = useChangeRule(rule?.id ?? 0);
  const saved = rule && { department: rule.department, level: rule.level, length: rule.length };

  const apply = (choices: RuleChoicesBody, version: number, isUndo: boolean) => {
    change.mutate(
      { ...choices, version },
      {
        onSuccess: (changed) => {
          setDraft(undefined);
          toast.success(
            isUndo ? 'The rule is as it was.' : 'The rule is changed.',
            isUndo || !saved ? {} : { action: { label: 'Undo', onClick: () => apply(saved, changed.version, true) } },
          );
        },
        onError: showProblem,
      },
    );
  };
  const canSave = draft !== undefined && rule !== undefined && !change.isPending;
  useKeys([
    {
      key: 'Ctrl+s',
      says: 'make the change of the rule',
      inFields: true,
      act: () => canSave && apply(draft, rule.version, false),
    },
  ]);
  if (!reply || !termLine) return null;
  if (!rule || !item || !saved) {
    return (
      <Page headline={`${termLine.school.shortName} has no report item yet.`}>
        <Empty title="Nothing is reported">
          A report item is one thing that a report card shows for a student in a course, such as a quarter grade.
        </Empty>
      </Page>
    );
  }
  const covered = reply.courses.filter(({ covers }) => covers.length > 0);
  const without = reply.courses.length - covered.length;
  const showsLacking = search.get('show') === 'lacking';
  const onChange = (choices: RuleChoicesBody) => {
    const isSaved = JSON.stringify(choices) === JSON.stringify(saved);
    setDraft(isSaved ? undefined : choices);
  };
  return (
    <Page
      headline={
        <>
          <FigureButton onClick={() => setSearch({})}>
            {showCount(covered.length)} of {plural(reply.courses.length, 'course')}
          </FigureButton>{' '}
          report <Strong>{item.name}</Strong> by one rule
          {without === 0 ? '; none is without it.' : '; '}
          {without > 0 && (
            <>
              <FigureButton tone="blocks" onClick={() => setSearch({ show: 'lacking' })}>
                {plural(without, 'course')}
              </FigureButton>{' '}
              {without === 1 ? 'has' : 'have'} nothing to report.
            </>
          )}
        </>
      }
      actions={
        <>
          <Button look="main" disabled={!canSave} onClick={() => canSave && apply(draft, rule.version, false)}>
            Change the rule <Key>Ctrl S</Key>
          </Button>
          <Button disabled={!draft} onClick={() => setDraft(undefined)}>
            Discard
          </Button>
        </>
      }
      aside={
        <span className="flex items-center gap-4">
          <span>
            <RuleSquare label="by rule" /> by rule
          </span>
          <span>
            <RuleSquare label="would be added" look="added" /> would be added
          </span>
          <span>
            <RuleSquare label="would be removed" look="removed" /> would be removed
          </span>
        </span>
      }
    >
      <div className="grid min-h-0 flex-1 grid-cols-[270px_minmax(0,1fr)] gap-3.5">
        <div className="space-y-3.5 overflow-auto">
          <Panel label="Rule" className={`px-4 py-3 ${draft ? 'border-l-[3px] border-l-wattle-fill' : ''}`}>
            <RuleSentence
              rule={rule}
              choices={draft ?? saved}
              itemName={item.name}
              schoolName={termLine.school.shortName}
              departments={reply.departments}
              onChange={onChange}
            />
          </Panel>
          {draft && preview.data && <RuleEffect preview={preview.data} itemName={item.name} />}
          <Panel label="Item" className="px-4 py-3 text-[13px]">
            <h2 className="mb-1 text-[14px] font-bold">{item.name}</h2>
            <p>
              Looked up on the <b>{item.scaleName}</b>, rounded {showPrecision(item.rounding, item.digits)}.{' '}
              {item.onTranscript ? 'Goes to the transcript.' : 'Stays off the transcript.'}{' '}
              {item.failingNeedsLastDate && 'A failing label needs a last date of attendance.'}
            </p>
          </Panel>
        </div>
        <Panel className="flex min-h-0 flex-col">
          <CoverageTable reply={reply} preview={draft && preview.data} onlyLacking={showsLacking} />
        </Panel>
      </div>
    </Page>
  );
}
