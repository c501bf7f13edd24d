import { Awaited } from '../shell/awaited';
import { ChangeList } from './change-list';
import { useHistory } from './queries';

/** Everything that was changed of one thing, for the drawer. */
export function ThingHistory({ thing }: { thing: string }) {
  return (
    <Awaited query={useHistory(thing)} waiting="Reading what was changed">
      {(changes) =>
        changes.length === 0 ? (
          <p className="text-quiet">Nothing was changed here since Wombat keeps a history.</p>
        ) : (
          <div className="-mx-4">
            <ChangeList changes={changes} showsWho />
          </div>
        )
      }
    </Awaited>
  );
}
