import { useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import type { ReadinessReply, ReadinessStepReply } from '#contract/transcripts';
import { agreeing, counted } from '#contract/messages';
import { PageFace } from '../shell/awaited-page';
import { showProblem } from '../shell/show-problem';
import { usePeriod, useScope } from '../shell/scope';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { showCount, showInstant } from '../ui/format';
import { Page, Strong } from '../ui/page';
import { Panel } from '../ui/panel';
import { FillDisc } from '../ui/state-marks';
import { useReadiness, useSeal } from './queries';
import { SealMark } from './seal-mark';

/** A check-list that turns into a seal. */
export function SealPage() {
  const { periodId } = useScope();
  const { period } = usePeriod();
  const ready = useReadiness(periodId);
  const { data: readiness } = ready;
  const seal = useSeal(periodId);
  const [isAsking, setAsking] = useState(false);
  if (!readiness || !period) return <PageFace queries={[ready]} />;
  const confirm = () => {
    setAsking(false);
    seal.mutate(undefined, { onSuccess: () => toast.success(`${period.name} is sealed.`), onError: showProblem });
  };
  return (
    <Page
      headline={<SealHeadline readiness={readiness} periodName={period.name} />}
      actions={
        !readiness.seal && (
          <Button look="main" disabled={!readiness.isReady || seal.isPending} onClick={() => setAsking(true)}>
            Seal {period.name}…
          </Button>
        )
      }
    >
      <div className="grid grid-cols-[minmax(0,1fr)_300px] items-start gap-3.5">
        <Panel label="Before the seal">
          <ol>
            {readiness.steps.map((step) => (
              <StepLine key={step.code} step={step} readiness={readiness} isSealed={readiness.seal !== null} />
            ))}
          </ol>
        </Panel>
        <SealMark readiness={readiness} periodName={period.name} />
      </div>
      <Dialog
        isOpen={isAsking}
        onOpenChange={setAsking}
        title={`Seal ${period.name}?`}
        description="The grades are copied to the transcripts as they stand now. Afterwards a grade of this period changes only by amendment."
      >
        <p className="mb-4">
          {showCount(readiness.entries)} transcript entries of {counted(readiness.students, 'student')} would be
          written, resting on the audit of {readiness.audit && showInstant(readiness.audit.at)}.
        </p>
        <div className="flex gap-2">
          <Button look="main" autoFocus onClick={confirm}>
            Seal {period.name}
          </Button>
          <Button onClick={() => setAsking(false)}>Not yet</Button>
        </div>
      </Dialog>
    </Page>
  );
}

function SealHeadline({ readiness, periodName }: { readiness: ReadinessReply; periodName: string }) {
  const { seal, isReady, steps, entries, students } = readiness;
  if (seal) {
    return (
      <>
        {periodName} was sealed <Strong>{showInstant(seal.at)}</Strong> by {seal.by}:{' '}
        <Strong>{counted(seal.entries, 'entry')}</Strong> {agreeing(seal.entries, 'is')} on the transcripts.
      </>
    );
  }
  if (isReady) {
    return (
      <>
        {periodName} is <Strong>ready to be sealed</Strong>: {counted(entries, 'entry')} for{' '}
        {counted(students, 'student')}.
      </>
    );
  }
  const open = steps.filter(({ isDone, isNeeded }) => isNeeded && !isDone).length;
  return (
    <>
      {periodName} cannot be sealed yet: <Strong tone="blocks">{counted(open, 'condition')}</Strong> of{' '}
      {steps.filter(({ isNeeded }) => isNeeded).length} {agreeing(open, 'is')} not met.
    </>
  );
}

function StepLine({
  step,
  readiness,
  isSealed,
}: {
  step: ReadinessStepReply;
  readiness: ReadinessReply;
  isSealed: boolean;
}) {
  const { path } = useScope();
  const { says, note, to } = wordsOf(step, readiness);
  const isDone = step.isDone || isSealed;
  return (
    <li className="flex items-center gap-4 border-t border-hairline px-5 py-3.5 first:border-t-0">
      <FillDisc done={isDone ? 1 : 0} of={1} />
      <div className="flex-1">
        <p className="font-bold">{says}</p>
        <p className="text-[13px] text-quiet">{note}</p>
      </div>
      {!isDone && to && (
        <Link
          to={path(to.path)}
          className="rounded-md border border-hairline px-3 py-1 font-semibold hover:border-control"
        >
          {to.name}
        </Link>
      )}
    </li>
  );
}

interface StepWords {
  readonly says: ReactNode;
  readonly note: string;
  readonly to?: { readonly path: string; readonly name: string };
}

function wordsOf({ code, isDone, count }: ReadinessStepReply, { expected, posted, audit }: ReadinessReply): StepWords {
  switch (code) {
    case 'window':
      return {
        says: isDone ? 'The posting window is closed' : 'The posting window is still open',
        note: isDone ? 'No teacher posts any more.' : 'Not needed, but sealing ends what is left of it.',
      };
    case 'posted':
      return {
        says: 'Every expected grade is posted',
        note: `${showCount(posted)} of ${showCount(expected)}${count > 0 ? `; ${counted(count, 'blank')} left` : ''}`,
        to: { path: 'grade-sheets?show=blanks', name: 'Fill the blanks' },
      };
    case 'audited':
      return {
        says: 'The period is audited',
        note: audit ? `${audit.rules} rules, ${showInstant(audit.at)}, by ${audit.by}` : 'Not yet.',
        to: { path: 'findings', name: 'Run the audit' },
      };
    case 'unchanged':
      return {
        says: 'Nothing changed after the audit',
        note:
          count > 0
            ? `${counted(count, 'grade')} changed since.`
            : audit
              ? 'The audit saw what would be sealed.'
              : 'Once there is an audit.',
        to: { path: 'findings', name: 'Audit again' },
      };
    case 'certified':
      return {
        says: 'The audit is closed with a certificate',
        note: isDone
          ? count > 1
            ? `${counted(count, 'certificate')} of courses together leave out none.`
            : 'It says what was checked, and what was let stand and why.'
          : count > 0
            ? 'The last one no longer holds.'
            : 'Once nothing blocks.',
        to: { path: 'findings', name: 'Issue a certificate' },
      };
    case 'settled':
      return {
        says: 'No finding blocks',
        note: isDone
          ? 'Nothing is left to resolve.'
          : audit
            ? `${counted(count, 'finding')} to resolve.`
            : 'Once there is an audit.',
        to: { path: 'findings', name: 'Resolve findings' },
      };
  }
}
