import { useState } from 'react';
import type { BookSummaryReply, CalculationReply, PolicyBody } from '#contract/calculation';
import { counted } from '#contract/messages';
import { useTellOfChange } from '../../changes/use-tell-of-change';
import { useScope } from '../../shell/scope';
import { showProblem } from '../../shell/show-problem';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { CheckField, Choice } from '../../ui/field';
import { useCopyPolicy, usePolicyEffect } from '../queries';

interface CopyPolicyDialogProps {
  readonly reply: CalculationReply;
  readonly period: { readonly id: number; readonly name: string };
  readonly source: BookSummaryReply;
  readonly onClose: () => void;
}

/** Gives the policy of one section to others as their own, and says of each first what it would do there. */
export function CopyPolicyDialog({ reply, period, source, onClose }: CopyPolicyDialogProps) {
  const sisters = reply.books.filter(
    ({ courseId, sectionId }) => courseId === source.courseId && sectionId !== source.sectionId,
  );
  const [isWide, setWide] = useState(false);
  const [toIds, setToIds] = useState<readonly number[]>([]);
  const [isForPeriod, setForPeriod] = useState(false);
  const copy = useCopyPolicy(period.id);
  const tellOfChange = useTellOfChange();
  const shown = isWide ? reply.books.filter(({ sectionId }) => sectionId !== source.sectionId) : sisters;
  const policy = reply.policies.find(({ id }) => id === source.policyId)?.policy;
  const periodId = isForPeriod ? period.id : null;
  const store = () =>
    copy.mutate(
      { sectionId: source.sectionId, toIds: [...toIds], periodId },
      {
        onSuccess: (after) => {
          onClose();
          tellOfChange(`${counted(toIds.length, 'section')} calculated like ${source.section}.`, after);
        },
        onError: showProblem,
      },
    );
  return (
    <Dialog
      isWide
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title={`Calculate others like ${source.section}`}
      description="Each gets a policy of its own; what the school changes later does not reach it any more."
      footer={
        <>
          <Button look="main" disabled={toIds.length === 0 || copy.isPending || !policy} onClick={store}>
            Give it to {counted(toIds.length, 'section')}
          </Button>
          <Button onClick={onClose}>Cancel</Button>
        </>
      }
    >
      <p className="mb-3">
        It applies to{' '}
        <Choice
          label="Periods"
          value={String(isForPeriod)}
          onChange={(event) => setForPeriod(event.target.value === 'true')}
        >
          <option value="false">every period</option>
          <option value="true">{period.name} only</option>
        </Choice>
        , for{' '}
        <Choice label="Sections" value={String(isWide)} onChange={(event) => setWide(event.target.value === 'true')}>
          <option value="false">sections of {source.course}</option>
          <option value="true">sections of all courses</option>
        </Choice>
        .
      </p>
      <ul
        aria-label="Sections to copy to"
        className="max-h-[320px] divide-y divide-hairline overflow-auto rounded-md border border-hairline"
      >
        {shown.map((book) => (
          <li key={book.sectionId} className="flex items-center gap-3 px-3 py-1.5">
            <CheckField
              className="w-[260px] shrink-0"
              label={book.section}
              checked={toIds.includes(book.sectionId)}
              onChange={(event) =>
                setToIds(
                  event.target.checked ? [...toIds, book.sectionId] : toIds.filter((id) => id !== book.sectionId),
                )
              }
            />
            <span className="text-[13px] text-quiet">
              now from {book.from}
              {toIds.includes(book.sectionId) && policy && (
                <CopyEffect sectionId={book.sectionId} periodId={periodId} policy={policy} inPeriodId={period.id} />
              )}
            </span>
          </li>
        ))}
      </ul>
    </Dialog>
  );
}

function CopyEffect({
  sectionId,
  periodId,
  policy,
  inPeriodId,
}: {
  sectionId: number;
  periodId: number | null;
  policy: PolicyBody;
  inPeriodId: number;
}) {
  const { schoolId } = useScope();
  const { data, error } = usePolicyEffect(schoolId, { department: null, sectionId, periodId, policy, inPeriodId });
  if (error) return <>; what it would change could not be worked out</>;
  if (!data) return <>; looking …</>;
  if (data.grades === 0) return <>; no scores there yet</>;
  return (
    <>
      ; it would change{' '}
      <b className={data.changed > 0 ? 'text-wattle' : ''}>
        {counted(data.changed, 'percent')} and {counted(data.moved, 'label')}
      </b>{' '}
      of {counted(data.grades, 'grade')}
    </>
  );
}
