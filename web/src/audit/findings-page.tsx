import { lazy, Suspense, useMemo, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import type { FindingReply } from '#contract/audit';
import { counted } from '#contract/messages';
import { ExportLinks } from '../cell-tables/table-files';
import { useTellOfChange } from '../changes/use-tell-of-change';
import { useMay } from '../shell/access';
import { PageFace } from '../shell/awaited-page';
import { openDrawer } from '../shell/drawer-store';
import { showProblem } from '../shell/show-problem';
import { usePeriod, useScope } from '../shell/scope';
import { searchWith } from '../ui/address/search-with';
import { Button, Key } from '../ui/button';
import { showInstant } from '../ui/format';
import { Page } from '../ui/page';
import { Empty, Panel } from '../ui/panel';
import { useKeys } from '../ui/use-keys';
import { dayOfInstant } from '../ui/day/zone-time';
import { AddedFindings } from './added-findings';
import { AuditProgress } from './audit-progress';
import { CertificateNote } from './certificate-note';
import { CourseCertificatesNote } from './course-certificates';
import { EvidencePanel } from './evidence-panel';
import { FindingGroups } from './finding-groups';
import { FindingList } from './finding-list';
import { GoneFindings } from './gone-findings';
import { placeOfFinding } from './finding-place';
import { FindingsHeadline } from './findings-headline';
import { groupings, groupOf, isSettled, orderFindings, severities } from './order-findings';
import { useAudit, useAuditProgress, useEndWaivers, useStartAudit, useStopAudit } from './queries';
import { SettleDialog, type Settling } from './settling/settle-dialog';

// Charts come with the first look at one.
const Distributions = lazy(() => import('./distributions'));

/** What the audit of the period found: rules at the left, findings in the middle, evidence at the right. */
export function FindingsPage() {
  const { periodId, path } = useScope();
  const { period, termLine } = usePeriod();
  const read = useAudit(periodId);
  const { data: audit } = read;
  const task = useAuditProgress(periodId);
  const isAuditing = task?.state === 'running';
  const startAudit = useStartAudit(periodId);
  const stopAudit = useStopAudit(periodId);
  const [search, setSearch] = useSearchParams();
  const navigate = useNavigate();
  const by = groupings.find((each) => each === search.get('by')) ?? 'rule';
  const group = search.get(by);
  const onlyNew = search.get('show') === 'new';
  const severity = severities.find((each) => each === search.get('severity')) ?? null;
  const run = audit?.run ?? null;
  const severityOf = useMemo(() => new Map((audit?.rules ?? []).map((rule) => [rule.id, rule.severity])), [audit]);
  const shown = useMemo(() => {
    const isShown = (finding: FindingReply) =>
      (!group || groupOf(finding, by) === group) &&
      (!onlyNew || finding.isNew) &&
      (!severity || severityOf.get(finding.ruleId) === severity);
    return orderFindings((run?.findings ?? []).filter(isShown), severityOf);
  }, [run, by, group, onlyNew, severity, severityOf]);
  const chosen = shown.find(({ key }) => key === search.get('finding')) ?? shown[0];
  const choose = (changes: Record<string, string | null>) =>
    setSearch((before) => searchWith(before, changes), { replace: true });
  const step = (by: number) => () => {
    const next = shown[shown.findIndex(({ key }) => key === chosen?.key) + by];
    if (next) choose({ finding: next.key });
  };
  const ruleOf = ({ ruleId: id }: FindingReply) => audit?.rules.find((each) => each.id === id);
  const openGrade = (finding: FindingReply) => {
    const rule = ruleOf(finding);
    if (rule) void navigate(path(placeOfFinding(rule, finding).path));
  };
  const sheetOf = ({ sectionId, itemId }: FindingReply) =>
    sectionId !== null && itemId !== null ? { periodId, sectionId, itemId } : null;
  const compare = (finding: FindingReply) => {
    const sheet = sheetOf(finding);
    if (sheet)
      openDrawer(
        `${finding.section} · ${finding.itemName}`,
        <Suspense>
          <Distributions sheet={sheet} />
        </Suspense>,
      );
  };
  const start = () => !isAuditing && startAudit.mutate(undefined, { onError: showProblem });
  const may = useMay();
  const mayWaive = may('audit');
  const mayMend = may('post-outside-window');
  const endWaivers = useEndWaivers(periodId);
  const [settling, setSettling] = useState<Settling | null>(null);
  const mayCertify = may('audit') && !period?.posting?.sealedAt && run?.faults.length === 0;
  const tellOfChange = useTellOfChange();
  useKeys([
    { key: 'a', says: 'run the audit again', act: start },
    { key: 'j', says: 'the next finding', act: step(1) },
    { key: 'k', says: 'the finding before', act: step(-1) },
    { key: 'n', says: 'the next finding', act: step(1) },
    { key: 'Enter', says: 'open what the finding is about', act: () => chosen && openGrade(chosen) },
    { key: 'd', says: 'the section beside its sister sections', act: () => chosen && compare(chosen) },
    { key: 'c', says: 'close the audit with a certificate', act: () => mayCertify && setSettling({ how: 'certify' }) },
    {
      key: 'm',
      says: 'set right what the rule can set right',
      act: () => mayMend && chosen && ruleOf(chosen)?.fix && setSettling({ how: 'mend', finding: chosen }),
    },
    {
      key: 't',
      says: 'tell the teacher of the finding',
      act: () => mayWaive && chosen?.teacher && !isSettled(chosen) && setSettling({ how: 'send', finding: chosen }),
    },
    {
      key: 'o',
      says: 'whose the finding is, and a comment',
      act: () => mayWaive && chosen && setSettling({ how: 'note', finding: chosen }),
    },
    {
      key: 'v',
      says: 'let the finding stand for a reason',
      act: () => mayWaive && chosen && !isSettled(chosen) && setSettling({ how: 'waive', finding: chosen }),
    },
  ]);
  if (!audit || !period) return <PageFace queries={[read]} />;
  const runButton = (
    <Button look="main" disabled={isAuditing || startAudit.isPending} onClick={start}>
      {isAuditing || startAudit.isPending ? 'Auditing…' : run ? 'Audit again' : 'Audit now'} <Key>A</Key>
    </Button>
  );
  const progress = task && (
    <AuditProgress
      task={task}
      mayStop={mayWaive}
      onStop={() => stopAudit.mutate(undefined, { onError: showProblem })}
    />
  );
  if (!run) {
    return (
      <Page headline={`${period.name} has not been audited yet.`} actions={runButton}>
        {progress}
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
          onGone={() => openDrawer('Gone since the run before', <GoneFindings periodId={periodId} />)}
          onAdded={() =>
            openDrawer('Found since the audit', <AddedFindings rules={audit.rules} found={run.again.added} />)
          }
          onNew={() => choose({ show: onlyNew ? null : 'new', finding: null })}
          onSeverity={(next) => choose({ severity: next === severity ? null : next, [by]: null, finding: null })}
        />
      }
      actions={
        <>
          {runButton}
          {may('audit') && (
            <Button disabled={!mayCertify} onClick={() => setSettling({ how: 'certify' })}>
              Certify… <Key>C</Key>
            </Button>
          )}
          <Button disabled={!group && !onlyNew && !severity} onClick={() => setSearch(by === 'rule' ? {} : { by })}>
            Show all findings
          </Button>
          <Link className="px-1 font-semibold text-eucalypt hover:underline" to={path('findings/rules')}>
            Rules
          </Link>
          {run.findings.length > 0 && <ExportLinks address={`/audit/findings?period=${periodId}`} />}
        </>
      }
      below={
        <>
          {audit.certificate && <CertificateNote certificate={audit.certificate} periodId={periodId} />}
          <CourseCertificatesNote periodId={periodId} />
        </>
      }
      aside={`${audit.rules.filter(({ isOff }) => !isOff).length} rules over ${counted(run.gradesChecked, 'grade')} · ${(run.milliseconds / 1000).toFixed(1)} s · ${showInstant(run.startedAt)}`}
    >
      {progress}
      <div className="@container flex min-h-[340px] flex-1">
        <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_280px] grid-rows-[auto_minmax(260px,1fr)] @min-[700px]:grid-rows-[minmax(0,1fr)] rounded-md border border-hairline bg-surface @min-[700px]:grid-cols-[212px_minmax(0,1fr)_280px] @min-[940px]:grid-cols-[256px_minmax(0,1fr)_320px]">
          <FindingGroups
            by={by}
            rules={audit.rules}
            findings={run.findings}
            chosen={group}
            onGroupBy={(next) =>
              setSearch(searchWith(search, { [by]: null, by: next === 'rule' ? null : next, finding: null }))
            }
            onChoose={(next) => choose({ [by]: next, finding: null })}
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
              onMend={() => setSettling({ how: 'mend', finding: chosen })}
              onOpen={() => openGrade(chosen)}
              onCompare={sheetOf(chosen) && (() => compare(chosen))}
              onSend={() => setSettling({ how: 'send', finding: chosen })}
              onNote={() => setSettling({ how: 'note', finding: chosen })}
              onWaive={() => setSettling({ how: 'waive', finding: chosen })}
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
      </div>
      {settling && (
        <SettleDialog
          settling={settling}
          audit={{ ...audit, run }}
          period={period}
          today={dayOfInstant(termLine!.now)}
          onClose={() => setSettling(null)}
        />
      )}
    </Page>
  );
}
