import { useLayoutEffect } from 'react';
import { useLocation } from 'react-router';
import { useViewOnly } from '../ui/view-only';
import { useMay } from './access';
import { placeAt } from './places';
import { useSession } from './session';

/** Says that a page can only be looked at, and sees to it that nothing on it is changed. */
export function ViewOnlyNote() {
  const { pathname } = useLocation();
  const may = useMay();
  const place = placeAt(pathname);
  const { data: session } = useSession();
  const isSeeing = Boolean(session?.seenBy);
  const cannotChange = place?.change !== undefined && may(place.read) && !may(place.change);
  const isViewOnly = isSeeing || cannotChange;
  useLayoutEffect(() => {
    useViewOnly.setState({ isViewOnly });
    return () => useViewOnly.setState({ isViewOnly: false });
  }, [isViewOnly]);
  if (!cannotChange || isSeeing) return null;
  return (
    <p role="note" className="border-b border-hairline bg-estuary-soft px-6 py-1.5 text-[13px]">
      You can read {place.name} and not change it: your role does not allow that.
    </p>
  );
}
