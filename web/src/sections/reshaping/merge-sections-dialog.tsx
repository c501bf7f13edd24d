import { useState } from 'react';
import type { Day } from '#core/calendar';
import { agreeing, counted, listed } from '#contract/messages';
import { useTellOfChange } from '../../changes/use-tell-of-change';
import { Awaited } from '../../shell/awaited';
import { FormDayField } from '../../ui/day/form-day-field';
import { CheckField, SelectField } from '../../ui/field';
import { showDay } from '../../ui/format';
import { PreviewDialog } from '../moving/preview-dialog';
import { MovingRows } from '../moving/moving-rows';
import { useCarryOut, useMovingPreview } from '../moving/queries';

/** A section as it is chosen from. */
export interface ChosenSection {
  readonly id: number;
  readonly name: string;
  /** Who have not left it. */
  readonly staying: number;
}

interface MergeSectionsDialogProps {
  readonly schoolId: number;
  /** Two or more, of one course in one period. */
  readonly sections: readonly ChosenSection[];
  readonly today: Day;
  readonly onClose: () => void;
}

/** Makes one section of several from a day on, after it was shown what goes along. */
export function MergeSectionsDialog({ schoolId, sections, today, onClose }: MergeSectionsDialogProps) {
  const fullest = sections.toSorted((a, b) => b.staying - a.staying)[0]!;
  const [intoId, setIntoId] = useState(fullest.id);
  const [enteredOn, setEnteredOn] = useState(today);
  const [teachersStay, setTeachersStay] = useState(true);
  const ending = sections.filter(({ id }) => id !== intoId);
  const request = { sectionIds: ending.map(({ id }) => id), intoId, enteredOn, teachersStay };
  const { preview, ready } = useMovingPreview(schoolId, 'sections/merge', request);
  const merge = useCarryOut(schoolId, 'sections/merge');
  const tellOfChange = useTellOfChange();
  const store = () =>
    merge.mutate(
      { ...request, previewId: ready!.previewId },
      {
        onSuccess: (after) => {
          const came = counted(after.moved, 'student');
          const gone = [...ready!.ending, ...ready!.removed];
          tellOfChange(`${listed(gone)} merged into ${ready!.into}; ${came} moved.`, after);
          onClose();
        },
      },
    );
  return (
    <PreviewDialog
      title={`Merge ${counted(sections.length, 'section')}`}
      description="Posted grades of periods that are not sealed go along, and so do scores."
      act="Merge"
      canAct={ready !== undefined && !merge.isPending}
      onAct={store}
      onClose={onClose}
    >
      <div className="grid grid-cols-2 gap-4">
        <SelectField
          label="The section that stays"
          value={intoId}
          onChange={({ target }) => setIntoId(Number(target.value))}
        >
          {sections.map(({ id, name, staying }) => (
            <option key={id} value={id}>
              {name}, {counted(staying, 'student')}
            </option>
          ))}
        </SelectField>
        <FormDayField label="First day together" day={enteredOn} onChange={setEnteredOn} />
      </div>
      <CheckField
        className="mt-3"
        label={`Who ${agreeing(ending.length, 'teaches')} ${listed(ending.map(({ name }) => name))} will teach the other section too`}
        checked={teachersStay}
        onChange={({ target }) => setTeachersStay(target.checked)}
      />
      <Awaited query={preview} waiting="Working out what goes along">
        {({ into, lastDay, ending: names, removed, brought, rows, ...room }) => (
          <MovingRows to={into} rows={rows} room={room} isOlder={preview.isPlaceholderData}>
            {names.length > 0 && `The last day of ${listed(names)} is ${showDay(lastDay)}. `}
            {removed.length > 0 &&
              `${listed(removed)}, where nobody has sat yet, ${agreeing(removed.length, 'is')} deleted. `}
            {brought > 0 &&
              `${counted(brought, 'assignment')} ${agreeing(brought, 'is')} copied to ${into}, for the students who bring scores.`}
          </MovingRows>
        )}
      </Awaited>
    </PreviewDialog>
  );
}
