import { useSearchParams } from 'react-router';
import { toast } from 'sonner';
import type { SchoolReply } from '#contract/calendar';
import type { AccountReply, AccountState, AccountsReply } from '#contract/people';
import { agreeing, counted } from '#contract/messages';
import { useTellOfChange } from '../../changes/use-tell-of-change';
import { PageFace } from '../../shell/awaited-page';
import { useSchools, useScope } from '../../shell/scope';
import { searchWith } from '../../ui/address/search-with';
import { Button } from '../../ui/button';
import { showCount, showInstant } from '../../ui/format';
import { DataGrid, type GridColumn } from '../../ui/grid/data-grid';
import { Figure, FigureButton, Page } from '../../ui/page';
import { Empty, Panel } from '../../ui/panel';
import { AccountDrawer } from './account-drawer';
import { noLinkWords, stateWords } from './account-words';
import { useAccounts, useSendLinks } from './queries';
import { sayRoles } from './role-words';

const columnsOf = (schools: readonly SchoolReply[]): GridColumn<AccountReply>[] => [
  {
    id: 'name',
    header: 'Name',
    sortBy: ({ name }) => name,
    cell: ({ name }) => <b className="font-semibold">{name}</b>,
  },
  {
    id: 'email',
    header: 'E-mail',
    width: '250px',
    sortBy: ({ email }) => email,
    cell: ({ email }) => email || <span className="text-wattle">none</span>,
  },
  {
    id: 'role',
    header: 'Roles',
    width: '230px',
    sortBy: ({ grants }) => sayRoles(grants ?? [], schools),
    cell: ({ grants }) => sayRoles(grants ?? [], schools),
  },
  {
    id: 'state',
    header: 'Account',
    width: '120px',
    findBy: ({ state }) => stateWords[state],
    sortBy: ({ state }) => stateWords[state],
    cell: ({ state }) => (
      <span className={state === 'active' ? '' : state === 'deactivated' ? 'text-waratah' : 'text-wattle'}>
        {stateWords[state]}
      </span>
    ),
  },
  {
    id: 'last',
    header: 'Last sign-in',
    width: '150px',
    sortBy: ({ lastSignInAt }) => lastSignInAt ?? '',
    cell: ({ lastSignInAt }) => (lastSignInAt === null ? '' : showInstant(lastSignInAt)),
  },
];

/** Who of the staff can sign in, who is invited, and who cannot. */
export function AccountsPage() {
  const { schoolId } = useScope();
  const accounts = useAccounts(schoolId);
  const { data: reply } = accounts;
  if (!reply) return <PageFace queries={[accounts]} />;
  return <AccountsDesk schoolId={schoolId} reply={reply} />;
}

function AccountsDesk({ schoolId, reply }: { readonly schoolId: number; readonly reply: AccountsReply }) {
  const { path } = useScope();
  const [search, setSearch] = useSearchParams();
  const sendLinks = useSendLinks(schoolId);
  const tellOfChange = useTellOfChange();
  const { accounts } = reply;
  const { data: schools = [] } = useSchools();
  const state = search.get('state');
  const countOf = (of: AccountState) => accounts.filter((one) => one.state === of).length;
  const shown = accounts.filter((one) => state === null || one.state === state);
  const without = accounts.filter((one) => one.state === 'none' && one.email !== '');
  const chosen = accounts.find(({ personId }) => personId === Number(search.get('person')));
  const show = (wanted: Readonly<Record<string, string | null>>) =>
    setSearch((before) => searchWith(before, wanted), { replace: true });
  const send = (people: readonly AccountReply[]) =>
    sendLinks.mutate(
      people.map(({ personId }) => personId),
      {
        onSuccess: (after) => {
          if (after.sent > 0) tellOfChange(`${counted(after.sent, 'message')} written to the outbox.`, after);
          const [first] = after.skipped;
          if (first) toast.warning(`${counted(after.skipped.length, 'person')} skipped: ${noLinkWords[first.reason]}.`);
        },
      },
    );
  return (
    <div className="flex min-h-0 flex-1">
      <Page
        headline={
          <>
            <FigureButton onClick={() => show({ state: 'active' })}>{showCount(countOf('active'))}</FigureButton> of{' '}
            <FigureButton onClick={() => show({ state: null })}>{showCount(accounts.length)}</FigureButton> staff can
            sign in
            {(['invited', 'none', 'deactivated'] as const)
              .filter((each) => countOf(each) > 0)
              .map((each) => (
                <span key={each}>
                  ;{' '}
                  <FigureButton tone="warns" onClick={() => show({ state: each })}>
                    {showCount(countOf(each))}
                  </FigureButton>{' '}
                  {each === 'none'
                    ? `${agreeing(countOf(each), 'has')} no account`
                    : `${agreeing(countOf(each), 'is')} ${stateWords[each]}`}
                </span>
              ))}
            .
          </>
        }
        below={
          <>
            An invitation is a message in the <Figure to={path('outbox')}>outbox</Figure> with a link that works once,
            for three days.
          </>
        }
        actions={
          without.length > 0 && (
            <Button look="main" disabled={sendLinks.isPending} onClick={() => send(without)}>
              Invite {counted(without.length, 'person')} without an account
            </Button>
          )
        }
      >
        <Panel className="flex min-h-[300px] flex-1 flex-col">
          <DataGrid
            label="Accounts of the staff"
            columns={columnsOf(schools)}
            rows={shown}
            rowKey={({ personId }) => String(personId)}
            chosenKey={chosen ? String(chosen.personId) : null}
            onReach={({ personId }) => show({ person: String(personId) })}
            empty={<Empty title="Nobody here">Choose a figure in the sentence above to see all of the staff.</Empty>}
          />
        </Panel>
      </Page>
      {chosen && (
        <AccountDrawer
          key={chosen.personId}
          schoolId={schoolId}
          account={chosen}
          isSending={sendLinks.isPending}
          onSend={() => send([chosen])}
          onClose={() => show({ person: null })}
        />
      )}
    </div>
  );
}
