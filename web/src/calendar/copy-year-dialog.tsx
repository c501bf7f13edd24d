import { useState } from 'react';
import { addDays, daysToSameWeekday, nextYearName, sameDateNextYear, type Day } from '#core/calendar';
import type { CalendarReply, PeriodBody } from '#contract/calendar';
import { counted } from '#contract/messages';
import { useTellOfChange } from '../changes/use-tell-of-change';
import { showProblem } from '../shell/show-problem';
import { Button } from '../ui/button';
import { DayField } from '../ui/day/day-field';
import { Dialog } from '../ui/dialog';
import { showDay } from '../ui/format';
import { yearsOf } from './calendar-view';
import { useCopyYears } from './queries';

interface CopyYearDialogProps {
  readonly calendars: readonly CalendarReply[];
  readonly onClose: () => void;
  readonly onCopied: () => void;
}

interface Plan {
  readonly calendar: CalendarReply;
  readonly year: PeriodBody;
  readonly name: string;
  readonly wanted: Day;
  readonly isChosen: boolean;
  /** What is typed as its first day cannot be read. */
  readonly isUnreadable: boolean;
}

/** Copies the newest year of some or all schools onto the next: same days of the week, breaks and windows moved along. */
export function CopyYearDialog({ calendars, onClose, onCopied }: CopyYearDialogProps) {
  const [plans, setPlans] = useState<readonly Plan[]>(() => calendars.flatMap(planOf));
  const copy = useCopyYears();
  const tellOfChange = useTellOfChange();
  const chosen = plans.filter(({ isChosen }) => isChosen);
  const unclear = chosen.some(({ name, isUnreadable }) => isUnreadable || name.trim() === '');
  const change = (index: number, changed: Partial<Plan>) =>
    setPlans(plans.with(index, { ...plans[index]!, ...changed }));
  const run = () =>
    copy.mutate(
      {
        years: chosen.map(({ calendar, year, name, wanted }) => ({
          schoolId: calendar.school.id,
          revision: calendar.revision,
          yearId: year.id,
          name,
          startsOn: wanted,
        })),
      },
      {
        onError: showProblem,
        onSuccess(after) {
          tellOfChange(
            `${counted(chosen.length, 'calendar')} copied onto the next year. Look over breaks and windows: they keep their days of the week, not their dates.`,
            after,
          );
          onCopied();
        },
      },
    );
  return (
    <Dialog
      isWide
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title="Copy a year onto the next"
      description="Periods, breaks and posting windows move by whole weeks, so that every day keeps its day of the week."
      footer={
        <>
          <Button look="main" disabled={chosen.length === 0 || unclear || copy.isPending} onClick={run}>
            Copy {counted(chosen.length, 'calendar')}
          </Button>
          <Button onClick={onClose}>Cancel</Button>
        </>
      }
    >
      <table className="w-full table-fixed text-[13px]">
        <thead>
          <tr className="text-left text-quiet [&_th]:h-8 [&_th]:font-semibold">
            <th className="w-[180px]">School</th>
            <th className="w-[110px]">New year</th>
            <th className="w-[120px] text-right">Begins about</th>
            <th className="pl-4!">So it runs</th>
          </tr>
        </thead>
        <tbody>
          {plans.map(({ calendar, year, name, wanted, isChosen }, index) => {
            const days = daysToSameWeekday(year.startsOn, wanted);
            return (
              <tr key={calendar.school.id} className="border-t border-hairline [&_td]:py-1">
                <td>
                  <label className="flex items-center gap-2 font-semibold">
                    <input
                      type="checkbox"
                      checked={isChosen}
                      onChange={(event) => change(index, { isChosen: event.target.checked })}
                      className="size-4 accent-eucalypt"
                    />
                    {calendar.school.shortName}
                  </label>
                </td>
                <td>
                  <input
                    aria-label={`Name of the new year of ${calendar.school.shortName}`}
                    value={name}
                    maxLength={40}
                    aria-invalid={name.trim() === ''}
                    onChange={(event) => change(index, { name: event.target.value })}
                    className="h-[28px] w-full rounded-[3px] border border-hairline bg-surface px-1.5 aria-invalid:border-waratah"
                  />
                </td>
                <td>
                  <DayField
                    label={`First day of the new year of ${calendar.school.shortName}`}
                    day={wanted}
                    onFault={(isUnreadable) => change(index, { isUnreadable })}
                    onChange={(day) => change(index, { wanted: day, isUnreadable: false })}
                  />
                </td>
                <td className="pl-4!">
                  {showDay(addDays(year.startsOn, days))} to {showDay(addDays(year.endsOn, days))}
                  <span className="text-quiet">, {counted(days / 7, 'week')} later</span>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Dialog>
  );
}

function planOf(calendar: CalendarReply): Plan[] {
  const year = yearsOf(calendar).at(-1);
  if (!year) return [];
  return [
    {
      calendar,
      year,
      name: nextYearName(year.name),
      wanted: sameDateNextYear(year.startsOn),
      isChosen: true,
      isUnreadable: false,
    },
  ];
}
