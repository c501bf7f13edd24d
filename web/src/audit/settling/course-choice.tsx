import { useState } from 'react';
import type { CourseStandingReply } from '#contract/audit';
import { agreeing, counted } from '#contract/messages';
import { Button } from '../../ui/button';
import { hasWords } from '../../ui/choice/has-words';
import { CheckField, TextField } from '../../ui/field';

interface CourseChoiceProps {
  readonly courses: readonly CourseStandingReply[];
  readonly chosen: ReadonlySet<number>;
  readonly onChoose: (ids: ReadonlySet<number>) => void;
}

/** Whether nothing stands against certifying a course by itself. */
export const isReady = ({ blocking, changed }: CourseStandingReply): boolean => blocking === 0 && changed === 0;

/** Courses to be certified by themselves; one that cannot be says why. */
export function CourseChoice({ courses, chosen, onChoose }: CourseChoiceProps) {
  const [text, setText] = useState('');
  const shown = courses.filter(({ title, code, department }) => hasWords(`${title} ${code} ${department}`, text));
  const waiting = shown.filter((course) => isReady(course) && !course.isCertified);
  return (
    <fieldset className="mb-3">
      <legend className="sr-only">Courses</legend>
      <div className="mb-2 flex items-end gap-2">
        <TextField
          label="Course, code or department"
          value={text}
          onChange={({ target }) => setText(target.value)}
          className="w-[260px]"
        />
        <Button
          disabled={waiting.every(({ id }) => chosen.has(id))}
          onClick={() => onChoose(new Set([...chosen, ...waiting.map(({ id }) => id)]))}
        >
          Choose what is ready ({waiting.length})
        </Button>
        <Button disabled={chosen.size === 0} onClick={() => onChoose(new Set())}>
          Choose none
        </Button>
      </div>
      <ul className="max-h-[34vh] overflow-y-auto rounded border border-hairline">
        {shown.map((course) => (
          <li key={course.id} className="flex items-center gap-3 border-b border-hairline px-2 py-1 last:border-b-0">
            <CheckField
              className="mr-auto min-h-6"
              checked={chosen.has(course.id)}
              disabled={!isReady(course)}
              onChange={({ target }) => onChoose(withOrWithout(chosen, course.id, target.checked))}
              label={
                <span>
                  {course.title} <span className="text-quiet">{course.code}</span>
                </span>
              }
            />
            <span className={`text-[13px] ${isReady(course) ? 'text-quiet' : 'text-waratah'}`}>{stateOf(course)}</span>
          </li>
        ))}
        {shown.length === 0 && <li className="px-2 py-3 text-center text-quiet">No course has these words.</li>}
      </ul>
    </fieldset>
  );
}

function stateOf({ blocking, changed, open, isCertified }: CourseStandingReply): string {
  const against = [
    ...(blocking > 0 ? [`${counted(blocking, 'finding')} ${agreeing(blocking, 'blocks')}`] : []),
    ...(changed > 0 ? [`${counted(changed, 'grade')} changed after the audit`] : []),
  ];
  if (against.length > 0) return against.join(', ');
  const isSo = isCertified ? 'certified already' : 'ready';
  return open === 0 ? `${isSo}, nothing found` : `${isSo}, ${counted(open, 'finding')} left`;
}

function withOrWithout(ids: ReadonlySet<number>, id: number, isWith: boolean): ReadonlySet<number> {
  const others = [...ids].filter((each) => each !== id);
  return new Set(isWith ? [...others, id] : others);
}
