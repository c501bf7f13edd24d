import { useMemo, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import type { Severity } from '#core/audit';
import type { AuditRunReply, FindingReply } from '#contract/audit';
import { agreeing, counted } from '#contract/messages';
import { useTellOfChange } from '../changes/use-tell-of-change';
import { useMay } from '../shell/access';
import { PageFace } from '../shell/awaited-page';
import { showProblem } from '../shell/show-problem';
import { usePeriod, useScope } from '../shell/scope';
import { searchWith } from '../ui/address/search-with';
import { Button, Key } from '../ui/button';
import { showCount, showInstant } from '../ui/format';
import { FigureButton, Page, Strong } from '../ui/page';
import { Empty, Panel } from '../ui/panel';
import { useKeys } from '../ui/use-keys';
import { dayOfInstant } from '../ui/day/zone-time';
import { EvidencePanel } from './evidence-panel';
import { FindingList } from './finding-list';
import { MendDialog } from './mend-dialog';
import { useAudit, useEndWaivers, useRunAudit, useWaive } from './queries';
import { RuleList } from './rule-list';
import { WaiveDialog } from './waive-dialog';

/** What the audit of the period found: rules at the left, findings in the middle, evidence at the right. */
export function FindingsPage() {
  const { periodId, path } = useScope();
  const { period, termLine } = usePeriod();
  const read = useAudit(periodId);
  const { data: audit } = read;
  const runAudit = useRunAudit(periodId);
  const [search, setSearch] = useSearchParams();
  const navigate = useNavigate();
  const ruleId = search.get('rule');
  const onlyNew = search.get('show') === 'new';
  const severity = severities.find((each) => each === search.get('severity')) ?? null;
  const run = audit?.run ?? null;
  const severityOf = useMemo(() => new Map((audit?.rules ?? []).map((rule) => [rule.id, rule.severity])), [audit]);
  const shown = useMemo(
    () =>
      (run?.findings ?? [])
        .filter(
          (finding) =>
            (!ruleId || finding.ruleId === ruleId) &&
            (!onlyNew || finding.isNew) &&
            (!severity || severityOf.get(finding.ruleId) === severity),
        )
        // What stops the seal comes first, what somebody let stand last.
        .toSorted((a, b) => rankOf(severityOf, a) - rankOf(severityOf, b)),
    [run, ruleId, onlyNew, severity, severityOf],
  );
  const chosen = shown.find(({ key }) => key === search.get('finding')) ?? shown[0];
  const choose = (changes: Record<string, string | null>) =>
    setSearch((before) => searchWith(before, changes), { replace: true });
  const step = (by: number) => () => {
    const next = shown[shown.findIndex(({ key }) => key === chosen?.key) + by];
    if (next) choose({ finding: next.key });
  };
  const openGrade = (finding: FindingReply) =>
    void navigate(`${path(`grade-sheets/${finding.sectionId}/${finding.itemId}`)}?student=${finding.enrollmentId}`);
  const ruleOf = ({ ruleId: id }: FindingReply) => audit?.rules.find((each) => each.id === id);
  const start = () => runAudit.mutate(undefined, { onError: showProblem });
  const may = useMay();
  const mayWaive = may('audit');
  const mayMend = may('post-outside-window');
  const [mending, setMending] = useState<FindingReply | null>(null);
  const waive = useWaive(periodId);
  const endWaivers = useEndWaivers(periodId);
  const [waiving, setWaiving] = useState<FindingReply | null>(null);
  const tellOfChange = useTellOfChange();
  useKeys([
    { key: 'a', says: 'run the audit again', act: start },
    { key: 'j', says: 'the next finding', act: step(1) },
    { key: 'k', says: 'the finding before', act: step(-1) },
    { key: 'n', says: 'the next finding', act: step(1) },
    { key: 'Enter', says: 'open the grade of the finding', act: () => chosen && openGrade(chosen) },
    {
      key: 'm',
      says: 'set right what the rule can set right',
      act: () => mayMend && chosen && ruleOf(chosen)?.fix && setMending(chosen),
    },
    {
      key: 'v',
      says: 'let the finding stand for a reason',
      act: () => mayWaive && chosen && !isWaived(chosen) && setWaiving(chosen),
    },
  ]);
  if (!audit || !period) return <PageFace queries={[read]} />;
  const runButton = (
    <Button look="main" disabled={runAudit.isPending} onClick={start}>
      {runAudit.isPending ? 'Auditing…' : run ? 'Audit again' : 'Audit now'} <Key>A</Key>
    </Button>
  );
  if (!run) {
    return (
      <Page headline={`${period.name} has not been audited yet.`} actions={runButton}>
        <Panel>
          <Empty title="No audit yet">
            An audit checks every grade by {counted(audit.rules.length, 'rule')}. It finds what is missing, what
            disagrees and what would be wrong on a transcript. It changes nothing.
          </Empty>
        </Panel>
      </Page>
    );
  }
  return (
    <Page
      headline={
        <FindingsHeadline
          run={run}
          periodName={period.name}
          severityOf={severityOf}
          onNew={() => choose({ show: onlyNew ? null : 'new', finding: null })}
          onSeverity={(next) => choose({ severity: next === severity ? null : next, rule: null, finding: null })}
        />
      }
      actions={
        <>
          {runButton}
          <Button disabled={!ruleId && !onlyNew && !severity} onClick={() => setSearch({})}>
            Show all findings
          </Button>
        </>
      }
      aside={`${audit.rules.length} rules over ${counted(run.gradesChecked, 'grade')} · ${(run.milliseconds / 1000).toFixed(1)} s · ${showInstant(run.startedAt)}`}
    >
      <div className="grid min-h-[340px] flex-1 grid-cols-[200px_minmax(0,1fr)_280px] min-[1180px]:grid-cols-[220px_minmax(0,1fr)_330px] rounded-md border border-hairline bg-surface">
        <RuleList
          rules={audit.rules}
          findings={run.findings}
          chosen={ruleId}
          onChoose={(rule) => choose({ rule, finding: null })}
        />
        <FindingList
          rules={audit.rules}
          findings={shown}
          chosen={chosen?.key ?? null}
          onChoose={({ key }) => choose({ finding: key })}
          onOpen={openGrade}
        />
        {chosen ? (
          <EvidencePanel
            finding={chosen}
            rule={ruleOf(chosen)!}
            mayWaive={mayWaive}
            mayMend={mayMend}
            onMend={() => setMending(chosen)}
            onOpen={() => openGrade(chosen)}
            onWaive={() => setWaiving(chosen)}
            onEndWaiver={() =>
              endWaivers.mutate(
                { findings: [chosen] },
                { onSuccess: (reply) => tellOfChange('The waiver is ended.', reply), onError: showProblem },
              )
            }
          />
        ) : (
          <div className="border-l border-hairline" />
        )}
      </div>
      {mending && (
        <MendDialog
          finding={mending}
          alike={alikeOf(run, mending)}
          summary={ruleOf(mending)!.summary}
          fix={ruleOf(mending)!.fix!}
          periodId={periodId}
          onMended={(reply) => {
            setMending(null);
            tellOfChange(
              `${counted(reply.changes.length, 'grade')} set right. Audit again to see what is gone.`,
              reply,
            );
          }}
          onClose={() => setMending(null)}
        />
      )}
      {waiving && (
        <WaiveDialog
          finding={waiving}
          alike={alikeOf(run, waiving)}
          summary={ruleOf(waiving)!.summary}
          today={dayOfInstant(termLine!.now)}
          isPending={waive.isPending}
          problem={waive.error}
          onWaive={(findings, decision) =>
            waive.mutate(
              { findings, ...decision },
              {
                onSuccess: (reply) => {
                  setWaiving(null);
                  tellOfChange(`${counted(findings.length, 'finding')} waived.`, reply);
                },
                onError: showProblem,
              },
            )
          }
          onClose={() => setWaiving(null)}
        />
      )}
    </Page>
  );
}

/** What the same rule found besides, and nobody let stand. */
const alikeOf = ({ findings }: AuditRunReply, { ruleId, key }: FindingReply) =>
  findings.filter((each) => each.ruleId === ruleId && each.key !== key && !isWaived(each));

const severities = ['blocks', 'warns', 'informs'] as const satisfies readonly Severity[];
const isWaived = ({ waiver }: FindingReply) => waiver?.state === 'holds';
const rankOf = (severityOf: ReadonlyMap<string, Severity>, finding: FindingReply) =>
  severities.indexOf(severityOf.get(finding.ruleId) ?? 'informs') + (isWaived(finding) ? severities.length : 0);

interface HeadlineProps {
  readonly run: AuditRunReply;
  readonly periodName: string;
  readonly severityOf: ReadonlyMap<string, Severity>;
  readonly onNew: () => void;
  readonly onSeverity: (severity: Severity) => void;
}

function FindingsHeadline({ run, periodName, severityOf, onNew, onSeverity }: HeadlineProps) {
  const { findings, sinceLastRun, changedSince } = run;
  const open = findings.filter((finding) => !isWaived(finding));
  const waived = findings.length - open.length;
  const count = (severity: Severity) => open.filter(({ ruleId }) => severityOf.get(ruleId) === severity).length;
  const [blocking, warning, informing] = [count('blocks'), count('warns'), count('informs')];
  return (
    <>
      {blocking === 0 ? (
        <>Nothing blocks the seal of {periodName}</>
      ) : (
        <>
          <FigureButton tone="blocks" onClick={() => onSeverity('blocks')}>
            {counted(blocking, 'finding')}
          </FigureButton>{' '}
          {agreeing(blocking, 'blocks')} the seal of {periodName}
        </>
      )}
      {warning > 0 && (
        <>
          ;{' '}
          <FigureButton tone="warns" onClick={() => onSeverity('warns')}>
            {counted(warning, 'warning')}
          </FigureButton>
        </>
      )}
      {informing > 0 && (
        <>
          {warning > 0 ? ' and ' : '; '}
          <FigureButton tone="informs" onClick={() => onSeverity('informs')}>
            {showCount(informing)}
          </FigureButton>{' '}
          for information
        </>
      )}
      {waived > 0 && (
        <>
          ; <Strong>{showCount(waived)} waived</Strong>
        </>
      )}
      {sinceLastRun && (
        <>
          ; since the run before, <FigureButton onClick={onNew}>{showCount(sinceLastRun.added)}</FigureButton>{' '}
          {agreeing(sinceLastRun.added, 'is')} new, {showCount(sinceLastRun.still)} still there and{' '}
          <Strong>{showCount(sinceLastRun.gone)} gone</Strong>
        </>
      )}
      .
      {changedSince > 0 && (
        <>
          {' '}
          <Strong tone="warns">{counted(changedSince, 'grade')}</Strong> changed after it.
        </>
      )}
    </>
  );
}
