import { X } from 'lucide-react';
import { useState } from 'react';
import type { RuleExceptions } from '#core/audit';
import type { RuleSettingReply, RuleSettingsReply, SetRuleReply } from '#contract/audit';
import { ProblemError } from '../../shell/api';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { SelectField, TextField } from '../../ui/field';
import type { SettingsOf } from './queries';

interface RuleDialogProps {
  readonly rule: RuleSettingReply;
  readonly of: SettingsOf;
  readonly settings: RuleSettingsReply;
  readonly isPending: boolean;
  readonly problem: Error | null;
  readonly onSave: (set: Pick<SetRuleReply, 'threshold' | 'exceptions'>) => void;
  readonly onClose: () => void;
}

/** Where a rule begins to find something, and which departments and courses it leaves alone. */
export function RuleDialog({ rule, of, settings, isPending, problem, onSave, onClose }: RuleDialogProps) {
  const set = rule[of];
  const [threshold, setThreshold] = useState(set.threshold === null ? '' : String(set.threshold));
  const [exceptions, setExceptions] = useState<RuleExceptions>(set.exceptions);
  const { measure } = rule;
  const value = threshold.trim() === '' ? null : Number(threshold.trim().replace(',', '.'));
  const fits = measure ? `a number from ${measure.least} to ${measure.most}, or nothing for ${measure.usual}` : '';
  const isFit = !measure || value === null || (value >= measure.least && value <= measure.most);
  const place = of === 'school' ? 'in this school' : 'in all schools';
  return (
    <Dialog
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title={`${rule.summary}, ${place}`}
      description={rule.why}
      footer={
        <>
          <Button
            look="main"
            disabled={isPending || !isFit}
            onClick={() => onSave({ threshold: measure ? value : set.threshold, exceptions })}
          >
            Save
          </Button>
          <Button onClick={onClose}>Cancel</Button>
        </>
      }
    >
      <div className="space-y-4">
        {problem && (
          <p role="alert" className="text-waratah">
            {problem instanceof ProblemError ? problem.problem.detail : problem.message}
          </p>
        )}
        {measure && (
          <TextField
            label={measure.says}
            inputMode="decimal"
            value={threshold}
            placeholder={`as it comes: ${measure.usual}`}
            onChange={(event) => setThreshold(event.target.value)}
            fault={isFit ? undefined : fits}
            className="w-[360px] max-w-full"
          />
        )}
        <fieldset>
          <legend className="mb-1 text-[13px] font-semibold">Leaves alone</legend>
          <ul className="mb-2 flex flex-wrap gap-1.5">
            {exceptions.departments.map((department) => (
              <LeftAlone
                key={department}
                name={department}
                says="every course of the department"
                onDrop={() =>
                  setExceptions({
                    ...exceptions,
                    departments: exceptions.departments.filter((each) => each !== department),
                  })
                }
              />
            ))}
            {exceptions.courses.map((id) => {
              const course = settings.courses.find((each) => each.id === id);
              return (
                <LeftAlone
                  key={id}
                  name={course?.title ?? `a course that is no longer there (${id})`}
                  says={course?.code ?? ''}
                  onDrop={() =>
                    setExceptions({ ...exceptions, courses: exceptions.courses.filter((each) => each !== id) })
                  }
                />
              );
            })}
            {exceptions.departments.length + exceptions.courses.length === 0 && (
              <li className="text-[13px] text-quiet">nothing: it looks everywhere</li>
            )}
          </ul>
          <div className="grid grid-cols-2 gap-3">
            <SelectField
              label="A department more"
              value=""
              onChange={({ target }) =>
                setExceptions({ ...exceptions, departments: [...exceptions.departments, target.value] })
              }
            >
              <option value="">choose…</option>
              {settings.departments
                .filter((each) => !exceptions.departments.includes(each))
                .map((each) => (
                  <option key={each} value={each}>
                    {each}
                  </option>
                ))}
            </SelectField>
            {of === 'school' && (
              <SelectField
                label="A course more"
                value=""
                onChange={({ target }) =>
                  setExceptions({ ...exceptions, courses: [...exceptions.courses, Number(target.value)] })
                }
              >
                <option value="">choose…</option>
                {settings.courses
                  .filter(({ id }) => !exceptions.courses.includes(id))
                  .map(({ id, code, title }) => (
                    <option key={id} value={id}>
                      {title} · {code}
                    </option>
                  ))}
              </SelectField>
            )}
          </div>
        </fieldset>
        <p className="text-[13px] text-quiet">
          It counts from the next audit on. A certificate names what was left alone, and no longer holds once it is set
          otherwise.
        </p>
      </div>
    </Dialog>
  );
}

function LeftAlone({ name, says, onDrop }: { name: string; says: string; onDrop: () => void }) {
  return (
    <li className="flex items-center gap-1 rounded border border-hairline bg-raised pl-2 text-[13px]" title={says}>
      {name}
      <button
        type="button"
        aria-label={`Look at ${name} again`}
        onClick={onDrop}
        className="grid size-6 place-items-center text-quiet hover:text-ink"
      >
        <X size={13} aria-hidden />
      </button>
    </li>
  );
}
