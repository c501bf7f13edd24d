import { useMemo, useState } from 'react';
import { isWithin, type Day } from '#core/calendar';
import { counted, listed } from '#contract/messages';
import type { NamedDaysReply, OwnSetUp } from '#contract/sections';
import { nameBook, readSeats, type NamedThing } from '#core/sections';
import { useTellOfChange } from '../../changes/use-tell-of-change';
import { Awaited } from '../../shell/awaited';
import { FormDayField } from '../../ui/day/form-day-field';
import { SelectField, TextField } from '../../ui/field';
import { showDay } from '../../ui/format';
import { Note } from '../../ui/panel';
import { PreviewDialog } from '../moving/preview-dialog';
import { MovingRows } from '../moving/moving-rows';
import { useCarryOut, useMovingPreview } from '../moving/queries';

interface SplitSectionDialogProps {
  readonly schoolId: number;
  readonly section: NamedDaysReply;
  readonly name: string;
  readonly enrollmentIds: number[];
  /** Who may teach the new section. */
  readonly staff: readonly NamedThing[];
  readonly today: Day;
  readonly onClose: () => void;
}

const ownSetUpWords: Readonly<Record<OwnSetUp, string>> = {
  calculation: 'a calculation',
  categories: 'categories',
  scale: 'a scale',
};

/** Gives some students of a section a section of their own, after it was shown what goes along. */
export function SplitSectionDialog(props: SplitSectionDialogProps) {
  const { schoolId, section, name, enrollmentIds, staff, today, onClose } = props;
  const called = useMemo(() => nameBook(staff), [staff]);
  const [teacherId, setTeacherId] = useState('');
  const [seats, setSeats] = useState('');
  const [enteredOn, setEnteredOn] = useState(today);
  const room = readSeats(seats);
  const areSeatsWrong = seats !== '' && room === undefined;
  const request = {
    sectionId: section.id,
    enrollmentIds,
    teacherId: Number(teacherId),
    seats: room ?? null,
    enteredOn,
  };
  const { preview, ready } = useMovingPreview(schoolId, 'sections/split', request, teacherId !== '' && !areSeatsWrong);
  const split = useCarryOut(schoolId, 'sections/split');
  const tellOfChange = useTellOfChange();
  const store = () =>
    split.mutate(
      { ...request, previewId: ready!.previewId },
      {
        onSuccess: (after) => {
          tellOfChange(`${ready!.name} is made, with ${counted(after.moved, 'student')} of ${name}.`, after);
          onClose();
        },
      },
    );
  return (
    <PreviewDialog
      title={`A new section with ${counted(enrollmentIds.length, 'student')} of ${name}`}
      description="It gets the same assignments; posted grades of periods that are not sealed and scores go along."
      act="Split"
      canAct={ready !== undefined && !split.isPending}
      onAct={store}
      onClose={onClose}
    >
      <div className="grid grid-cols-[1fr_120px_1fr] gap-4">
        <SelectField label="Taught by" value={teacherId} onChange={({ target }) => setTeacherId(target.value)}>
          <option value="">choose a teacher</option>
          {staff.map(({ id }) => (
            <option key={id} value={id}>
              {called.textOf(id)}
            </option>
          ))}
        </SelectField>
        <TextField
          label="Seats"
          inputMode="numeric"
          value={seats}
          fault={areSeatsWrong ? 'from 1 to 999' : undefined}
          onChange={({ target }) => setSeats(target.value.trim())}
        />
        <FormDayField
          label="First day"
          day={enteredOn}
          refuse={(day) =>
            isWithin(day, section)
              ? undefined
              : `${name} runs from ${showDay(section.startsOn)} to ${showDay(section.endsOn)}.`
          }
          onChange={setEnteredOn}
        />
      </div>
      {teacherId !== '' && (
        <Awaited query={preview} waiting="Working out what goes along">
          {({ name: made, lastDay, rows, assignments, without, ...room }) => (
            <>
              <MovingRows to={made} rows={rows} room={room} isOlder={preview.isPlaceholderData}>
                {made} gets {counted(assignments, 'assignment')}; the last day in {name} is {showDay(lastDay)}.
              </MovingRows>
              {without.length > 0 && (
                <Note
                  tone="warns"
                  title={`${name} has ${listed(without.map((each) => ownSetUpWords[each]))} of its own`}
                >
                  {made} begins with what its course has. Set the rest under Calculation and Scales, or numbers will
                  differ.
                </Note>
              )}
            </>
          )}
        </Awaited>
      )}
    </PreviewDialog>
  );
}
