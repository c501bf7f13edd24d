import { useState } from 'react';
import { dayOrThrow } from '#core/calendar';
import type { AssignmentBody, AssignmentReply, BookReply } from '#contract/calculation';
import { counted } from '#contract/messages';
import { HistoryButton } from '../../changes/history-button';
import { useTellOfChange } from '../../changes/use-tell-of-change';
import { ProblemError } from '../../shell/api';
import { showProblem } from '../../shell/show-problem';
import { Button } from '../../ui/button';
import { FormDayField } from '../../ui/day/form-day-field';
import { Dialog } from '../../ui/dialog';
import { CheckField, SelectField, TextField } from '../../ui/field';
import { showGivenFirst } from '../../ui/format';
import { useAddAssignment, useChangeAssignment, useRemoveAssignment } from '../queries';

interface AssignmentDialogProps {
  readonly book: BookReply;
  /** Undefined for a new one. */
  readonly assignment: AssignmentReply | undefined;
  /** What a new one begins as, for one made like another. */
  readonly like: AssignmentBody | undefined;
  readonly onLike: (assignment: AssignmentBody) => void;
  readonly onClose: () => void;
}

/** An assignment: what it is out of, when it is due, what it counts in, and for whom. */
export function AssignmentDialog({ book, assignment, like, onLike, onClose }: AssignmentDialogProps) {
  const [body, setBody] = useState<AssignmentBody>(() => bodyOf(assignment ?? like) ?? firstBody(book));
  const [alsoIn, setAlsoIn] = useState<readonly number[]>([]);
  const add = useAddAssignment(book.sectionId, book.period.id);
  const change = useChangeAssignment(book.sectionId, book.period.id);
  const remove = useRemoveAssignment(book.sectionId, book.period.id);
  const failed = assignment ? change.error : add.error;
  const problem = failed instanceof ProblemError ? failed : undefined;
  const set = (changed: Partial<AssignmentBody>) => setBody({ ...body, ...changed });
  const tellOfChange = useTellOfChange();
  const isReadOnly = !book.canEdit;
  const categories = book.categories.filter(({ isActive, id }) => isActive || id === body.categoryId);
  const own = book.sisters.filter(({ isOwn }) => isOwn);
  const done = (says: string) => (after: object) => {
    tellOfChange(says, after);
    onClose();
  };
  const onError = (error: unknown) =>
    !(error instanceof ProblemError && error.problem.errors.length > 0) && showProblem(error);
  const store = () => {
    if (assignment) {
      const { id, version } = assignment;
      change.mutate({ id, version, ...body }, { onSuccess: done(`${body.name} is changed.`), onError });
      return;
    }
    const where = alsoIn.length > 0 ? counted(alsoIn.length + 1, 'section') : book.section;
    add.mutate({ ...body, alsoIn: [...alsoIn] }, { onSuccess: done(`${body.name} is added to ${where}.`), onError });
  };
  const takeOut = () =>
    remove.mutate(assignment!.id, { onSuccess: done(`${assignment!.name} is deleted.`), onError: showProblem });
  return (
    <Dialog
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title={assignment ? assignment.name : 'A new assignment'}
      description={isReadOnly ? `${showGivenFirst(book.teacher)} sets it.` : undefined}
      footer={
        isReadOnly ? (
          <Button onClick={onClose}>Close</Button>
        ) : (
          <>
            <Button look="main" disabled={add.isPending || change.isPending} onClick={store}>
              {assignment ? 'Save it' : 'Add it'}
            </Button>
            <Button onClick={onClose}>Cancel</Button>
            {assignment && (
              <span className="ml-auto flex gap-2">
                <HistoryButton
                  thing={`assignment ${book.sectionId}/${book.period.id}/${assignment.id}`}
                  called={assignment.name}
                  onOpen={onClose}
                />
                <Button
                  look="quiet"
                  onClick={() => onLike({ ...bodyOf(assignment)!, name: `${assignment.name}, again` })}
                >
                  Another like it
                </Button>
                <Button look="danger" disabled={remove.isPending} onClick={takeOut}>
                  Delete
                </Button>
              </span>
            )}
          </>
        )
      }
    >
      <fieldset disabled={isReadOnly} className="grid grid-cols-2 gap-x-4 gap-y-3">
        <TextField
          label="Name"
          className="col-span-2"
          value={body.name}
          maxLength={80}
          onChange={(event) => set({ name: event.target.value })}
          fault={problem?.fault('name')}
        />
        <SelectField
          label="Category"
          value={body.categoryId}
          onChange={(event) => set({ categoryId: Number(event.target.value) })}
          fault={problem?.fault('categoryId')}
        >
          {categories.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </SelectField>
        <TextField
          label="Out of"
          value={body.possible}
          inputMode="decimal"
          onChange={(event) => set({ possible: event.target.value.trim().replace(',', '.') })}
          fault={problem?.fault('possible')}
        />
        <div>
          <FormDayField
            label="Due"
            day={dayOrThrow(body.dueOn)}
            onChange={(dueOn) => set({ dueOn })}
            disabled={isReadOnly}
          />
          {problem?.fault('dueOn') && <p className="mt-1 text-[13px] text-waratah">{problem.fault('dueOn')}</p>}
        </div>
        <div className="space-y-1 pt-1">
          <CheckField
            label="Extra: its points only add"
            checked={body.isExtra}
            onChange={(event) => set({ isExtra: event.target.checked })}
          />
          <CheckField
            label="Counts in the grade"
            checked={body.isCounted}
            onChange={(event) => set({ isCounted: event.target.checked })}
          />
          <CheckField
            label="Published to families"
            checked={body.isPublished}
            onChange={(event) => set({ isPublished: event.target.checked })}
          />
        </div>
        <GivenTo
          book={book}
          givenTo={body.givenTo}
          fault={problem?.fault('givenTo')}
          onChange={(givenTo) => set({ givenTo })}
        />
        {!assignment && own.length > 0 && (
          <div className="col-span-2">
            <span className="mb-1 block text-[13px] font-semibold">Also in</span>
            <div className="flex flex-wrap gap-x-5 gap-y-1">
              {own.map(({ sectionId, section }) => (
                <CheckField
                  key={sectionId}
                  label={section}
                  checked={alsoIn.includes(sectionId)}
                  onChange={(event) =>
                    setAlsoIn(event.target.checked ? [...alsoIn, sectionId] : alsoIn.filter((id) => id !== sectionId))
                  }
                />
              ))}
            </div>
          </div>
        )}
      </fieldset>
    </Dialog>
  );
}

function GivenTo({
  book,
  givenTo,
  fault,
  onChange,
}: {
  book: BookReply;
  givenTo: readonly number[] | null;
  fault: string | undefined;
  onChange: (givenTo: number[] | null) => void;
}) {
  const everybody = book.students.map(({ enrollmentId }) => enrollmentId);
  return (
    <div className="col-span-2">
      <CheckField
        label="For everybody in the section"
        checked={givenTo === null}
        onChange={(event) => onChange(event.target.checked ? null : everybody)}
      />
      {givenTo !== null && (
        <ul
          aria-label="Given to"
          className="mt-1.5 grid max-h-[150px] grid-cols-2 overflow-auto rounded-md border border-hairline p-2"
        >
          {book.students.map(({ enrollmentId, student }) => (
            <li key={enrollmentId}>
              <CheckField
                label={student}
                checked={givenTo.includes(enrollmentId)}
                onChange={(event) =>
                  onChange(
                    event.target.checked ? [...givenTo, enrollmentId] : givenTo.filter((id) => id !== enrollmentId),
                  )
                }
              />
            </li>
          ))}
        </ul>
      )}
      {fault && <p className="mt-1 text-[13px] text-waratah">{fault}</p>}
    </div>
  );
}

function bodyOf(assignment: AssignmentBody | undefined): AssignmentBody | undefined {
  if (!assignment) return undefined;
  const { name, categoryId, possible, dueOn, isExtra, isCounted, isPublished, givenTo } = assignment;
  return { name, categoryId, possible: String(Number(possible)), dueOn, isExtra, isCounted, isPublished, givenTo };
}

/** Like the last one that is there, due at the end of the period. */
function firstBody({ categories, assignments, period }: BookReply): AssignmentBody {
  const last = assignments.at(-1);
  return {
    name: '',
    categoryId: last?.categoryId ?? categories.find(({ isActive }) => isActive)?.id ?? 0,
    possible: last ? String(Number(last.possible)) : '10',
    dueOn: last?.dueOn ?? period.endsOn,
    isExtra: false,
    isCounted: true,
    isPublished: true,
    givenTo: null,
  };
}
