import { Link } from 'react-router';
import type { SetUpPlace } from '#contract/set-up';
import { counted } from '#contract/messages';
import { useScope } from '../shell/scope';
import { useSetUpCheck } from './queries';

const mostShown = 2;

/** What is wrong with the set-up in one place, above its view; nothing where nothing is. */
export function SetUpNote({ place }: { place: SetUpPlace }) {
  const { periodId, path } = useScope();
  const { data } = useSetUpCheck(periodId);
  const own = data?.faults.filter((fault) => fault.place === place) ?? [];
  if (own.length === 0) return null;
  return (
    <section
      aria-label="Faults of the set-up"
      className="flex items-baseline gap-3 rounded-md border border-l-[3px] border-hairline border-l-wattle-fill bg-surface px-4 py-2 text-[13px]"
    >
      <b className="shrink-0">{counted(own.length, 'fault')} to resolve</b>
      <span className="min-w-0 flex-1 truncate">
        {own.slice(0, mostShown).map(({ key, says, search }) => (
          <Link key={key} to={path(`${place}${search}`)} className="mr-4 hover:underline">
            {says}
          </Link>
        ))}
      </span>
      <Link to={path('set-up')} className="shrink-0 font-semibold text-eucalypt hover:underline">
        All faults of the set-up
      </Link>
    </section>
  );
}
