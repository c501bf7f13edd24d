import { Link, useNavigate } from 'react-router';
import type { AccountReply } from '#contract/people';
import { HistoryButton } from '../../changes/history-button';
import { useTellOfChange } from '../../changes/use-tell-of-change';
import { useMay } from '../../shell/access';
import { useScope } from '../../shell/scope';
import { useSeeAs } from '../../shell/session';
import { showProblem } from '../../shell/show-problem';
import { Button } from '../../ui/button';
import { Drawer } from '../../ui/drawer';
import { sentenceOf } from './account-words';
import { useChangeAccount } from './queries';
import { RoleList } from './role-list';

interface AccountDrawerProps {
  readonly schoolId: number;
  readonly account: AccountReply;
  readonly isSending: boolean;
  readonly onSend: () => void;
  readonly onClose: () => void;
}

/** One account: how it stands, its roles, and what can be done with it. */
export function AccountDrawer({ schoolId, account, isSending, onSend, onClose }: AccountDrawerProps) {
  const { personId, name, email, state, grants, username } = account;
  const may = useMay();
  const seeAs = useSeeAs();
  const navigate = useNavigate();
  const { path } = useScope();
  const change = useChangeAccount(schoolId, account);
  const tellOfChange = useTellOfChange();
  const put = (says: string, to: Parameters<typeof change.mutate>[0]) =>
    change.mutate(to, { onSuccess: (after) => tellOfChange(says, after) });
  const sends =
    state === 'none' ? 'Invite' : state === 'invited' ? 'Send another link' : 'Send a link for a new password';
  return (
    <Drawer title={name} onClose={onClose}>
      <div className="space-y-4">
        <p>{sentenceOf(account)}</p>
        {grants !== null && (
          <RoleList
            schoolId={schoolId}
            grants={grants}
            isPending={change.isPending}
            onChange={(says, after) => put(says, { grants: after })}
          />
        )}
        <div className="flex flex-wrap gap-2">
          {state !== 'deactivated' && (
            <Button look={state === 'active' ? 'plain' : 'main'} disabled={isSending || email === ''} onClick={onSend}>
              {sends}
            </Button>
          )}
          {state === 'deactivated' ? (
            <Button
              look="main"
              disabled={change.isPending}
              onClick={() => put(`${name} can sign in again.`, { isActive: true })}
            >
              Let in again
            </Button>
          ) : (
            grants !== null && (
              <Button
                look="danger"
                disabled={change.isPending}
                onClick={() => put(`${name} cannot sign in any more.`, { isActive: false })}
              >
                Deactivate
              </Button>
            )
          )}
          {username !== null && may('see-as') && (
            <Button
              disabled={seeAs.isPending}
              onClick={() => seeAs.mutate(personId, { onSuccess: () => void navigate('/'), onError: showProblem })}
            >
              See what they see
            </Button>
          )}
          {username !== null && <HistoryButton thing={`account ${username}`} called={`the account of ${name}`} />}
        </div>
        {username !== null && (
          <p className="text-[13px]">
            <Link
              to={path(`log?thing=${encodeURIComponent(`account ${username}`)}`)}
              className="font-semibold text-estuary hover:underline"
            >
              Sign-ins of {name}, with place and browser
            </Link>
          </p>
        )}
      </div>
    </Drawer>
  );
}
