import { useState } from 'react';
import { isWithin, type Day } from '#core/calendar';
import { counted } from '#contract/messages';
import type { NamedDaysReply } from '#contract/sections';
import { useTellOfChange } from '../../changes/use-tell-of-change';
import { Awaited } from '../../shell/awaited';
import { FormDayField } from '../../ui/day/form-day-field';
import { SelectField } from '../../ui/field';
import { showDay } from '../../ui/format';
import { PreviewDialog } from './preview-dialog';
import { MovingRows } from './moving-rows';
import { useCarryOut, useMovingPreview } from './queries';

interface MoveDialogProps {
  readonly schoolId: number;
  readonly enrollmentIds: number[];
  /** Sections to choose from, by the text that stands for each. */
  readonly sections: readonly (readonly [section: NamedDaysReply, text: string])[];
  readonly today: Day;
  readonly onClose: () => void;
}

/** Moves students to another section from a day on, after it was shown what goes along. */
export function MoveDialog({ schoolId, enrollmentIds, sections, today, onClose }: MoveDialogProps) {
  const [sectionId, setSectionId] = useState('');
  const [enteredOn, setEnteredOn] = useState(today);
  const request = { enrollmentIds, sectionId: Number(sectionId), enteredOn };
  const section = sections.find(([{ id }]) => String(id) === sectionId)?.[0];
  const { preview, ready } = useMovingPreview(schoolId, 'moves', request, section !== undefined);
  const move = useCarryOut(schoolId, 'moves');
  const tellOfChange = useTellOfChange();
  const store = () =>
    move.mutate(
      { ...request, previewId: ready!.previewId },
      {
        onSuccess: (after) => {
          tellOfChange(`${counted(after.moved, 'student')} moved to ${ready!.to}.`, after);
          onClose();
        },
      },
    );
  return (
    <PreviewDialog
      title={`Move ${counted(enrollmentIds.length, 'student')} to another section`}
      description="Posted grades of periods that are not sealed go along, and scores of assignments that both sections have."
      act="Move"
      canAct={ready !== undefined && !move.isPending}
      onAct={store}
      onClose={onClose}
    >
      <div className="grid grid-cols-2 gap-4">
        <SelectField label="To" value={sectionId} onChange={({ target }) => setSectionId(target.value)}>
          <option value="">choose a section</option>
          {sections.map(([{ id }, text]) => (
            <option key={id} value={id}>
              {text}
            </option>
          ))}
        </SelectField>
        <FormDayField
          label="First day there"
          day={enteredOn}
          refuse={(day) =>
            section && !isWithin(day, section)
              ? `It runs from ${showDay(section.startsOn)} to ${showDay(section.endsOn)}.`
              : undefined
          }
          onChange={setEnteredOn}
        />
      </div>
      {section && (
        <Awaited query={preview} waiting="Working out what goes along">
          {({ to, lastDay, rows, ...room }) => (
            <MovingRows to={to} rows={rows} room={room} isOlder={preview.isPlaceholderData}>
              Their last day where they are is {showDay(lastDay)}.
            </MovingRows>
          )}
        </Awaited>
      )}
    </PreviewDialog>
  );
}
