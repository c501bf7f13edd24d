import { useState } from 'react';
import type { AuditRunReply, CertifyRequest, CourseStandingReply } from '#contract/audit';
import { counted } from '#contract/messages';
import { Awaited } from '../../shell/awaited';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { AreaField, Choice } from '../../ui/field';
import { isWaived } from '../order-findings';
import { useCourseCertificates } from '../queries';
import { CourseChoice, isReady } from './course-choice';

interface CertifyDialogProps {
  readonly run: AuditRunReply;
  readonly rules: number;
  readonly period: { readonly id: number; readonly name: string };
  /** What stands against certifying all of the school, in sentences; nothing where it can be done. */
  readonly against: readonly string[];
  readonly isPending: boolean;
  readonly onIssue: (certificate: Omit<CertifyRequest, 'periodId'>) => void;
  readonly onClose: () => void;
}

/** What a certificate is about and what it will say, before it is issued. */
export function CertifyDialog({ run, rules, period, against, isPending, onIssue, onClose }: CertifyDialogProps) {
  const [isOfAll, setOfAll] = useState(against.length === 0);
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const [note, setNote] = useState('');
  const read = useCourseCertificates(period.id);
  // Somebody may have changed a grade of a course that was chosen.
  const ready = (read.data?.courses ?? []).filter((course) => chosen.has(course.id) && isReady(course));
  const canIssue = isOfAll ? against.length === 0 : ready.length > 0;
  return (
    <Dialog
      isWide={!isOfAll}
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title={`Issue a certificate of ${period.name}?`}
      description="It says what was checked, by which rules, and what was let stand by whom and why. It breaks visibly as soon as a grade, a rule or a waiver changes; another one can be issued at any time."
      footer={
        <>
          <Button
            look="main"
            disabled={isPending || !canIssue}
            onClick={() => onIssue({ note: note.trim(), ...(isOfAll ? {} : { courseIds: ready.map(({ id }) => id) }) })}
          >
            Issue the certificate
          </Button>
          <Button onClick={onClose}>Cancel</Button>
        </>
      }
    >
      <p className="mb-3">
        It is about{' '}
        <Choice
          label="What it is about"
          value={isOfAll ? 'all' : 'courses'}
          onChange={({ target }) => setOfAll(target.value === 'all')}
        >
          <option value="all">all courses</option>
          <option value="courses">chosen courses</option>
        </Choice>
        {isOfAll ? ', as a seal needs it.' : '. A seal needs one for each course, or one of all.'}
      </p>
      {isOfAll ? (
        <OfAll run={run} rules={rules} against={against} />
      ) : (
        <Awaited query={read} waiting="Looking at each course">
          {({ courses }) => (
            <>
              <CourseChoice courses={courses} chosen={chosen} onChoose={setChosen} />
              <p className="mb-3 text-[13px] text-quiet">{ofCoursesInWords(ready)}</p>
            </>
          )}
        </Awaited>
      )}
      <AreaField
        label="Note for whoever reads it (may be empty)"
        maxLength={1000}
        value={note}
        onChange={(event) => setNote(event.target.value)}
      />
    </Dialog>
  );
}

function OfAll({ run, rules, against }: Pick<CertifyDialogProps, 'run' | 'rules' | 'against'>) {
  if (against.length > 0)
    return (
      <ul className="mb-3 list-disc pl-5 text-waratah">
        {against.map((each) => (
          <li key={each}>{each}</li>
        ))}
      </ul>
    );
  const waived = run.findings.filter(isWaived);
  const left = run.findings.length - waived.length;
  return (
    <ul className="mb-3 list-disc pl-5">
      <li>
        {counted(run.gradesChecked, 'grade')} checked by {counted(rules, 'rule')}
      </li>
      <li>{counted(waived.length, 'finding')} let stand, each with its reason</li>
      {left > 0 && <li>{counted(left, 'finding')} left that warn or inform</li>}
    </ul>
  );
}

function ofCoursesInWords(chosen: readonly CourseStandingReply[]): string {
  if (chosen.length === 0) return 'No course is chosen yet.';
  const sum = (of: 'sections' | 'open') => chosen.reduce((all, each) => all + each[of], 0);
  const left = sum('open');
  return `${counted(chosen.length, 'course')} with ${counted(sum('sections'), 'section')} chosen${left > 0 ? `; ${counted(left, 'finding')} left that warn or inform` : ''}.`;
}
