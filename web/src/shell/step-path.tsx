import { NavLink } from 'react-router';
import type { PersonReply } from '#contract/people';
import { usePlatforms } from '../matching/queries';
import { useSetUpCheck } from '../set-up/queries';
import { showCount } from '../ui/format';
import { besides, mayGo, placesOf, steps, today, type Place } from './places';
import { usePeriod, useSchools, useScope } from './scope';

/** The five steps as a numbered path, each with its places. On a narrow screen, and on a full one, it is there only while it is open. */
export function StepPath({ person, isOpen }: { person: PersonReply; isOpen: boolean }) {
  const { schoolId } = useScope();
  const { data: schools } = useSchools();
  const own = placesOf(
    person,
    schoolId,
    schools?.find(({ id }) => id === schoolId),
  );
  const [hasToday, others] = [
    mayGo(person, schoolId, today),
    besides.filter((place) => mayGo(person, schoolId, place)),
  ];
  return (
    <nav
      aria-label="Steps"
      className={`w-[196px] shrink-0 overflow-auto border-r border-hairline bg-raised px-3.5 py-3 ${isOpen ? '' : 'max-[860px]:hidden full-screen:hidden'}`}
    >
      {hasToday && (
        <div className="mb-2 -ml-1">
          <PlaceLink place={today} isStrong />
        </div>
      )}
      <ol className="relative">
        {own.map(({ name, places }, index) => (
          <li key={name} className="relative pb-3">
            {index < own.length - 1 && (
              <span aria-hidden className="absolute top-6 bottom-[-2px] left-[11px] w-px bg-hairline" />
            )}
            <div className="flex items-center gap-2 font-bold">
              <span
                aria-hidden
                className="figures grid size-[23px] place-items-center rounded-full border border-control text-[12px]"
              >
                {steps.findIndex((step) => step.name === name) + 1}
              </span>
              {name}
            </div>
            <div className="mt-1 ml-7">
              {places.map((place) => (
                <PlaceLink key={place.path} place={place} />
              ))}
            </div>
          </li>
        ))}
      </ol>
      {others.length > 0 && (
        <div className="-ml-1 border-t border-hairline pt-3">
          {others.map((place) => (
            <PlaceLink key={place.path} place={place} />
          ))}
        </div>
      )}
    </nav>
  );
}

function PlaceLink({ place, isStrong = false }: { place: Place; isStrong?: boolean }) {
  const { path, schoolId } = useScope();
  const { period } = usePeriod();
  const { data: setUp } = useSetUpCheck(place.path === 'set-up' ? period?.id : undefined);
  const faults = setUp?.faults.length ?? 0;
  const { data: platforms = [] } = usePlatforms(place.path === 'matches' ? schoolId : undefined);
  const unmatched = platforms.reduce((sum, platform) => sum + platform.open, 0);
  const open = (period && place.open?.(period)) ?? faults + unmatched;
  return (
    <NavLink
      to={path(place.path)}
      className={({ isActive }) =>
        `flex h-[26px] items-center rounded-md px-1.5 ${isActive ? 'bg-eucalypt-soft font-bold text-eucalypt' : `${isStrong ? 'font-bold' : 'text-quiet'} hover:bg-eucalypt-soft`}`
      }
    >
      {place.name}
      {open > 0 && <span className="figures ml-auto text-[12px]">{showCount(open)}</span>}
    </NavLink>
  );
}
