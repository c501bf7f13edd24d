import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { Command } from 'cmdk';
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { PersonReply } from '#contract/people';
import type { FindingHitReply, NamedHitReply, SearchHitReply } from '#contract/search';
import { api } from './api';
import { actionsOf } from './actions';
import { allPlacesOf } from './places';
import { showDay } from '../ui/format';
import { hasWords } from '../ui/choice/has-words';
import { useFocusReturn } from '../ui/use-focus-return';
import { useChoosePeriod, usePeriod, useSchools, useScope } from './scope';
import { groupLook, Hits, itemLook } from './search-hits';

/** Search and jump: screens, actions, periods, sections, people and courses. */
export function SearchDialog({
  isOpen,
  onOpenChange,
  person,
}: {
  isOpen: boolean;
  onOpenChange: (isOpen: boolean) => void;
  person: PersonReply;
}) {
  const [text, setText] = useState('');
  const { schoolId, path } = useScope();
  const { termLine } = usePeriod();
  const { data: schools = [] } = useSchools();
  const choosePeriod = useChoosePeriod();
  const navigate = useNavigate();
  const isAsked = text.trim() !== '';
  const search = useQuery({
    queryKey: ['search', text],
    enabled: isAsked,
    placeholderData: keepPreviousData,
    queryFn: () => api.get<SearchHitReply[]>(`/search?text=${encodeURIComponent(text)}`),
  });
  const go = (to: string) => {
    onOpenChange(false);
    setText('');
    void navigate(to);
  };
  /** A hit in another school opens there, in the period that its own term line suggests. */
  const goTo = (hit: NamedHitReply, place: string) =>
    go(hit.schoolId === schoolId || hit.schoolId === null ? path(place) : `/school/${hit.schoolId}/to/${place}`);
  const places = allPlacesOf(
    person,
    schoolId,
    schools.find(({ id }) => id === schoolId),
  ).filter(({ name }) => name.toLowerCase().includes(text.trim().toLowerCase()));
  const actions = isAsked ? actionsOf(person, schoolId).filter(({ name }) => hasWords(name, text)) : [];
  const periods =
    termLine && isAsked
      ? termLine.periods.filter(({ name, startsOn, endsOn }) => hasWords(`${name} ${startsOn} ${endsOn}`, text))
      : [];
  const found = (isAsked && search.data) || [];
  // What was found for the text before stays in sight, but Enter must not open it.
  const isOlder = search.isPlaceholderData;
  const named = (kind: NamedHitReply['kind']) => found.filter((hit): hit is NamedHitReply => hit.kind === kind);
  const sections = named('section');
  const focus = useFocusReturn();
  return (
    <Dialog.Root open={isOpen} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-veil" />
        <Dialog.Content
          {...focus}
          aria-describedby={undefined}
          className="fixed top-[12vh] left-1/2 z-50 w-[min(560px,92vw)] -translate-x-1/2 overflow-hidden rounded-md border border-hairline bg-surface shadow-float"
        >
          <Dialog.Title className="sr-only">Find</Dialog.Title>
          <Command shouldFilter={false} label="Find">
            <Command.Input
              value={text}
              onValueChange={setText}
              placeholder="A person, a section, a course, a finding, a screen, a period"
              className="h-12 w-full border-b border-hairline bg-transparent px-4 text-[16px] outline-none"
            />
            <Command.List className="max-h-[52vh] overflow-auto py-1.5">
              <Command.Empty className="px-4 py-6 text-center text-quiet">
                {search.error ? search.error.message : search.isFetching ? 'Searching…' : 'Nothing matches.'}
              </Command.Empty>
              {places.length > 0 && (
                <Command.Group heading="Screens" className={groupLook}>
                  {places.map((place) => (
                    <Command.Item
                      key={place.path}
                      value={place.path}
                      onSelect={() => go(path(place.path))}
                      className={itemLook}
                    >
                      {place.name}
                    </Command.Item>
                  ))}
                </Command.Group>
              )}
              {actions.length > 0 && (
                <Command.Group heading="Actions" className={groupLook}>
                  {actions.map((action) => (
                    <Command.Item
                      key={action.name}
                      value={`do ${action.name}`}
                      onSelect={() => go(path(action.path))}
                      className={itemLook}
                    >
                      {action.name}
                    </Command.Item>
                  ))}
                </Command.Group>
              )}
              {periods.length > 0 && (
                <Command.Group heading="Periods" className={groupLook}>
                  {periods.map((each) => (
                    <Command.Item
                      key={each.id}
                      value={`period ${each.id}`}
                      onSelect={() => {
                        onOpenChange(false);
                        setText('');
                        choosePeriod(each.id);
                      }}
                      className={itemLook}
                    >
                      <span>{each.name}</span>
                      <span className="ml-auto text-[13px] text-quiet">
                        {showDay(each.startsOn)} to {showDay(each.endsOn)}
                      </span>
                    </Command.Item>
                  ))}
                </Command.Group>
              )}
              <Hits
                heading="Grade sheets"
                hits={sections}
                isOlder={isOlder}
                onGo={(hit) => goTo(hit, `grade-sheets/${hit.id}`)}
              />
              <Hits
                heading="Grade books"
                hits={sections}
                isOlder={isOlder}
                onGo={(hit) => goTo(hit, `grade-books/${hit.id}`)}
              />
              <Hits
                heading="Students"
                hits={named('student')}
                isOlder={isOlder}
                onGo={(hit) => goTo(hit, `students/${hit.id}`)}
              />
              <Hits
                heading="Staff"
                hits={named('staff')}
                isOlder={isOlder}
                onGo={(hit) => goTo(hit, `people?person=${hit.id}`)}
              />
              <Hits
                heading="Courses"
                hits={named('course')}
                isOlder={isOlder}
                onGo={(hit) => goTo(hit, `courses?course=${hit.id}`)}
              />
              <Hits
                heading="Findings"
                hits={found.filter((hit): hit is FindingHitReply => hit.kind === 'finding')}
                isOlder={isOlder}
                onGo={({ schoolId: at, periodId, filter }) =>
                  go(`/school/${at}/period/${periodId}/findings?${new URLSearchParams(filter)}`)
                }
              />
            </Command.List>
          </Command>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
