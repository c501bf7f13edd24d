import { useState } from 'react';
import { courseLevels, type CourseLevel } from '#core/courses';
import { placementKinds, type PlacementKind } from '#core/scales';
import type { PlaceScaleRequest, ScalesReply } from '#contract/scales';
import { Button } from '../ui/button';
import { CheckField, SelectField } from '../ui/field';
import { Panel } from '../ui/panel';
import { placeWords } from './words';

const nowhere = { department: null, level: null, courseId: null, sectionId: null };

interface NewPlacementProps {
  readonly reply: ScalesReply;
  readonly fromPeriodId: number;
  readonly periodName: string;
  readonly onPut: (request: Omit<PlaceScaleRequest, 'revision'>) => void;
}

/** Puts a scale in use at a place, from a period on. */
export function NewPlacement({ reply, fromPeriodId, periodName, onPut }: NewPlacementProps) {
  const [kind, setKind] = useState<PlacementKind>('school');
  const [where, setWhere] = useState('');
  const [scaleId, setScaleId] = useState(reply.scales[0]?.id ?? 0);
  const [isLocked, setLocked] = useState(false);
  const choices: readonly (readonly [value: string, name: string])[] =
    kind === 'department'
      ? reply.departments.map((name) => [name, name])
      : kind === 'level'
        ? courseLevels.map((level) => [level, `${level} courses`])
        : kind === 'course'
          ? reply.courses.map(({ id, title }) => [String(id), title])
          : kind === 'section'
            ? reply.sections.map(({ id, name }) => [String(id), name])
            : [];
  const offered = reply.scales.filter((scale) => kind !== 'system' || scale.isDistrictWide);
  const placed = offered.some(({ id }) => id === scaleId) ? scaleId : (offered[0]?.id ?? 0);
  const chosen = where || choices[0]?.[0] || '';
  const request = (): Omit<PlaceScaleRequest, 'revision'> => ({
    ...nowhere,
    kind,
    scaleId: placed,
    isLocked,
    fromPeriodId,
    ...(kind === 'department' ? { department: chosen } : {}),
    ...(kind === 'level' ? { level: chosen as CourseLevel } : {}),
    ...(kind === 'course' ? { courseId: Number(chosen) } : {}),
    ...(kind === 'section' ? { sectionId: Number(chosen) } : {}),
  });
  return (
    <Panel label="Use a scale at a place" className="space-y-3 px-4 py-3">
      <h2 className="font-bold">Use a scale from {periodName} on</h2>
      <div className="grid grid-cols-2 gap-3">
        <SelectField
          label="Where"
          value={kind}
          onChange={(event) => {
            setKind(event.target.value as PlacementKind);
            setWhere('');
          }}
        >
          {placementKinds.map((each) => (
            <option key={each} value={each}>
              {placeWords[each]}
            </option>
          ))}
        </SelectField>
        {choices.length > 0 && (
          <SelectField label="Which" value={chosen} onChange={(event) => setWhere(event.target.value)}>
            {choices.map(([value, name]) => (
              <option key={value} value={value}>
                {name}
              </option>
            ))}
          </SelectField>
        )}
      </div>
      <SelectField label="Scale" value={placed} onChange={(event) => setScaleId(Number(event.target.value))}>
        {offered.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </SelectField>
      {kind === 'system' && offered.length === 0 && (
        <p className="text-[13px] text-wattle">No scale is for every school yet; make one with “New scale”.</p>
      )}
      <CheckField
        label="lock it: nothing below may differ"
        checked={isLocked}
        onChange={(event) => setLocked(event.target.checked)}
      />
      <Button look="main" disabled={!placed} onClick={() => onPut(request())}>
        Preview and use it
      </Button>
    </Panel>
  );
}
