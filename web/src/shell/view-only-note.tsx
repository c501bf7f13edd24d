import { useLayoutEffect } from 'react';
import { useLocation } from 'react-router';
import { useViewOnly } from '../ui/view-only';
import { mayInAll, useMay } from './access';
import { placeAt } from './places';
import { useSession } from './session';

/** Says that a page can only be looked at, and sees to it that nothing on it is changed. */
export function ViewOnlyNote() {
  const { pathname, search } = useLocation();
  const may = useMay();
  const place = placeAt(pathname);
  const { data: session } = useSession();
  const isSeeing = Boolean(session?.seenBy);
  const shared = place?.shared?.[new URLSearchParams(search).get('view') ?? ''];
  const isOfAll = shared !== undefined && session != null && !mayInAll(session.person, 'change-shared-set-up');
  const cannotChange = place?.change !== undefined && may(place.read) && (!may(place.change) || isOfAll);
  const isViewOnly = isSeeing || cannotChange;
  useLayoutEffect(() => {
    useViewOnly.setState({ isViewOnly });
    return () => useViewOnly.setState({ isViewOnly: false });
  }, [isViewOnly]);
  if (!cannotChange || isSeeing) return null;
  return (
    <p role="note" className="border-b border-hairline bg-estuary-soft px-6 py-1.5 text-[13px]">
      You can read {shared ?? place.name} and not change it:{' '}
      {isOfAll && may(place.change)
        ? 'all schools share it, and your role is not for all of them.'
        : 'your role does not allow that.'}
    </p>
  );
}
