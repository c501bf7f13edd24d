import { useState } from 'react';
import type { CalculationReply } from '#contract/calculation';
import type { PolicyPlace } from '#core/calculation';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Choice } from '../../ui/field';

interface NewPolicyDialogProps {
  readonly reply: CalculationReply;
  readonly period: { readonly id: number; readonly name: string };
  /** Whether the place has a policy already, which is then opened. */
  readonly hasOwn: (place: PolicyPlace) => boolean;
  readonly onBegin: (place: PolicyPlace) => void;
  readonly onClose: () => void;
}

/** Chooses a place for a policy of its own; it begins as what the place inherits. */
export function NewPolicyDialog({ reply, period, hasOwn, onBegin, onClose }: NewPolicyDialogProps) {
  const [kind, setKind] = useState<'department' | 'section' | 'school'>('department');
  const [department, setDepartment] = useState(reply.departments[0] ?? '');
  const [sectionId, setSectionId] = useState(reply.books[0]?.sectionId ?? 0);
  const [isForPeriod, setForPeriod] = useState(false);
  const place: PolicyPlace = {
    department: kind === 'department' ? department : null,
    sectionId: kind === 'section' ? sectionId : null,
    periodId: isForPeriod || kind === 'school' ? period.id : null,
  };
  return (
    <Dialog
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title="A policy for one place"
      description="It begins with what the place inherits now, and applies once it is saved."
      footer={
        <>
          <Button look="main" onClick={() => onBegin(place)}>
            {hasOwn(place) ? 'Open the one it has' : 'Begin it'}
          </Button>
          <Button onClick={onClose}>Cancel</Button>
        </>
      }
    >
      <p className="text-[15px] leading-[2]">
        The grade books of{' '}
        <Choice label="Kind of place" value={kind} onChange={(event) => setKind(event.target.value as typeof kind)}>
          <option value="department">the department</option>
          <option value="section">the section</option>
          <option value="school">the whole school</option>
        </Choice>{' '}
        {kind === 'department' && (
          <Choice label="Department" value={department} onChange={(event) => setDepartment(event.target.value)}>
            {reply.departments.map((name) => (
              <option key={name} value={name}>
                {name}
              </option>
            ))}
          </Choice>
        )}
        {kind === 'section' && (
          <Choice label="Section" value={sectionId} onChange={(event) => setSectionId(Number(event.target.value))}>
            {reply.books.map((book) => (
              <option key={book.sectionId} value={book.sectionId}>
                {book.section}
              </option>
            ))}
          </Choice>
        )}{' '}
        are calculated by it in{' '}
        {kind === 'school' ? (
          <b>{period.name} only</b>
        ) : (
          <Choice
            label="Periods"
            value={String(isForPeriod)}
            onChange={(event) => setForPeriod(event.target.value === 'true')}
          >
            <option value="false">every period</option>
            <option value="true">{period.name} only</option>
          </Choice>
        )}
        .
      </p>
    </Dialog>
  );
}
