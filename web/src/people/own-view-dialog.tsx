import { useMutation } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import type { FirstWeekday, OwnView, OwnViewChange } from '#core/people';
import { nameAs } from '#core/people';
import { api } from '../shell/api';
import { followOwnView } from '../shell/kept-view';
import { showProblem } from '../shell/show-problem';
import { Button } from '../ui/button';
import { dayInFigures, dayInWords } from '../ui/day/day-order';
import { Dialog } from '../ui/dialog';
import { CheckField, Choice } from '../ui/field';
import { useOwnView } from '../ui/own-view';
import { locales, nameOfLocale } from './locales';

const themes = { light: 'light', dark: 'dark', system: 'as the system has it' } as const;
const nameStyles = {
  both: 'both their legal and their preferred name',
  legal: 'their legal name alone',
  preferred: 'the name they prefer',
} as const;
const densities = { compact: 'close together', roomy: 'with room between them' } as const;
const weekdays: Readonly<Record<FirstWeekday, string>> = {
  country: 'the day that the country has',
  0: 'Sunday',
  1: 'Monday',
  6: 'Saturday',
};

/** How one likes what one sees, in sentences; kept for oneself on every machine, and nobody else's view changes. */
export function OwnViewDialog({ onClose }: { onClose: () => void }) {
  const kept = useOwnView();
  const [change, setChange] = useState<OwnViewChange>({});
  const view: OwnView = { ...kept, ...change, columns: kept.columns };
  const save = useMutation({
    mutationFn: () => api.put<OwnView>('/session/view', change),
    onSuccess: (reply) => {
      onClose();
      followOwnView(reply);
    },
    onError: showProblem,
  });
  const set = (part: OwnViewChange) => setChange((before) => ({ ...before, ...part }));
  const name = (names: OwnView['names'], order = view.peopleOrder) => nameAs('Carrow, Hale “Hal”', { order, names });
  const locale = view.locale || undefined;
  return (
    <Dialog
      isOpen
      onOpenChange={(isOpen) => !isOpen && onClose()}
      title="Your view"
      description="Only you see things so, wherever you sign in."
      footer={
        <>
          <Button
            look="main"
            writes={false}
            disabled={save.isPending || Object.keys(change).length === 0}
            onClick={() => save.mutate()}
          >
            Save
          </Button>
          <Button onClick={onClose}>Cancel</Button>
        </>
      }
    >
      <div className="space-y-3">
        <Sentence>
          The screen is <Words label="Theme" words={themes} value={view.theme} onChoose={(theme) => set({ theme })} />,
          and rows stand{' '}
          <Words label="Rows" words={densities} value={view.density} onChoose={(density) => set({ density })} />.
        </Sentence>
        <Sentence example={name(view.names)}>
          People are listed by{' '}
          <Words
            label="People by"
            words={{ family: 'family name', given: 'given name' }}
            value={view.peopleOrder}
            onChoose={(peopleOrder) => set({ peopleOrder })}
          />
          , with <Words label="Names" words={nameStyles} value={view.names} onChoose={(names) => set({ names })} />.
        </Sentence>
        <Sentence example={`${dayInWords('2026-03-09', locale)}: ${dayInFigures('2026-03-09', locale)}`}>
          Days and figures are written as in{' '}
          <Choice
            label="Language and country"
            value={view.locale}
            onChange={({ target }) => set({ locale: target.value })}
          >
            <option value="">this browser, {nameOfLocale(navigator.language)}</option>
            {locales.map((each) => (
              <option key={each} value={each}>
                {nameOfLocale(each)}
              </option>
            ))}
          </Choice>
          , and weeks begin on{' '}
          <Choice
            label="First day of the week"
            value={String(view.firstWeekday)}
            onChange={({ target: { value } }) => set({ firstWeekday: weekdayOf(value) })}
          >
            {Object.entries(weekdays).map(([value, says]) => (
              <option key={value} value={value}>
                {says}
              </option>
            ))}
          </Choice>
          .
        </Sentence>
        <div className="space-y-1.5 border-t border-hairline pt-3">
          <Check
            label="Show only sections that run today"
            checked={view.onlyRunning}
            onCheck={(onlyRunning) => set({ onlyRunning })}
          />
          <Check
            label="Newest assignments first in grade books"
            checked={view.newestFirst}
            onCheck={(newestFirst) => set({ newestFirst })}
          />
          <Check
            label="Keys of a single letter or sign answer"
            checked={view.letterKeys}
            onCheck={(letterKeys) => set({ letterKeys })}
          />
        </div>
        <p className="text-[13px] text-quiet">Columns that you hide, move or resize are kept for you as well.</p>
      </div>
    </Dialog>
  );
}

function Sentence({ example, children }: { example?: string; children: ReactNode }) {
  return (
    <div>
      <p className="leading-7">{children}</p>
      {example && (
        <p aria-live="polite" className="text-[13px] text-quiet">
          {example}
        </p>
      )}
    </div>
  );
}

interface WordsProps<Value extends string> {
  readonly label: string;
  readonly words: Readonly<Record<Value, string>>;
  readonly value: Value;
  readonly onChoose: (value: Value) => void;
}

/** A choice in a sentence, of which each has its words. */
function Words<Value extends string>({ label, words, value, onChoose }: WordsProps<Value>) {
  const all = Object.entries(words) as [Value, string][];
  return (
    <Choice
      label={label}
      value={value}
      onChange={({ target }) => onChoose(all.find(([each]) => each === target.value)![0])}
    >
      {all.map(([each, says]) => (
        <option key={each} value={each}>
          {says}
        </option>
      ))}
    </Choice>
  );
}

function Check({ label, checked, onCheck }: { label: string; checked: boolean; onCheck: (is: boolean) => void }) {
  return <CheckField label={label} checked={checked} onChange={({ target }) => onCheck(target.checked)} />;
}

function weekdayOf(value: string): FirstWeekday {
  return ([0, 1, 6] as const).find((day) => String(day) === value) ?? 'country';
}
