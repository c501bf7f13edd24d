import type { RunsReply } from '#contract/runs';
import { useScope } from '../shell/scope';
import { Choice } from '../ui/field';
import { nightTimes } from '../ui/night-times';
import { carriedParts, choicesOf, partOf, type CarriedPart } from './plan-run';
import { usePlatformHabits } from './run-queries';

interface HabitsProps {
  readonly platform: RunsReply['platforms'][number];
  readonly categories: RunsReply['categories'];
}

/** What a platform does by itself, in two sentences: at night, and with what has no category. */
export function PlatformHabits({ platform: { id, name, nightly, defaultCategoryId }, categories }: HabitsProps) {
  const { schoolId } = useScope();
  const habits = usePlatformHabits(schoolId);
  const { at, mode, ...carries } = nightly ?? {
    at: null,
    mode: 'keep' as const,
    carriesWork: true,
    carriesTotals: false,
  };
  const { carriesWork, carriesTotals } = carries;
  const set = (change: object) => habits.nightly.mutate({ id, at, mode, carriesWork, carriesTotals, ...change });
  return (
    <p className="px-1 text-[13px] leading-6">
      {name}{' '}
      <Choice label={`Time of ${name}`} value={at ?? ''} onChange={({ target }) => set({ at: target.value || null })}>
        <option value="">has no nightly run</option>
        {nightTimes(at).map((time) => (
          <option key={time} value={time}>
            runs every night at {time}
          </option>
        ))}
      </Choice>
      {nightly && (
        <>
          {' '}
          with its{' '}
          <Choice
            label={`What of ${name}`}
            value={partOf(nightly)}
            onChange={({ target }) => set(choicesOf(target.value as CarriedPart))}
          >
            {carriedParts.map(([value, words]) => (
              <option key={value} value={value}>
                {words}
              </option>
            ))}
          </Choice>{' '}
          and{' '}
          <Choice
            label={`What is here for ${name}`}
            value={mode}
            onChange={({ target }) => set({ mode: target.value })}
          >
            <option value="keep">keeps</option>
            <option value="replace">replaces</option>
          </Choice>{' '}
          what was entered here, for {nightly.setBy}
        </>
      )}
      . What has no joined group{' '}
      <Choice
        label={`Default category of ${name}`}
        value={defaultCategoryId ?? ''}
        onChange={({ target }) =>
          habits.defaultCategory.mutate({ id, categoryId: target.value === '' ? null : Number(target.value) })
        }
      >
        <option value="">is refused</option>
        {categories.map((category) => (
          <option key={category.id} value={category.id}>
            goes into {category.name}
          </option>
        ))}
      </Choice>
      .
    </p>
  );
}
