import { ChangeList } from './change-list';
import { useHistory } from './queries';

/** Everything that was changed of one thing, for the drawer. */
export function ThingHistory({ thing }: { thing: string }) {
  const { data: changes, isPending } = useHistory(thing);
  if (isPending) return <p className="text-quiet">Loading …</p>;
  if (!changes) return <p className="text-waratah">The server does not answer. Close this and open it again.</p>;
  if (changes.length === 0) return <p className="text-quiet">Nothing was changed here since Wombat keeps a history.</p>;
  return (
    <div className="-mx-4">
      <ChangeList changes={changes} showsWho />
    </div>
  );
}
