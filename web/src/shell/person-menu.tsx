import { Eye, Fingerprint, KeyRound, LogOut, Maximize } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import type { PersonReply } from '#contract/people';
import { useState } from 'react';
import { toast } from 'sonner';
import { ChangePasswordDialog } from '../people/accounts/change-password-dialog';
import { sayRoles } from '../people/accounts/role-words';
import { PasskeysDialog } from '../people/passkeys/passkeys-dialog';
import { OwnViewDialog } from '../people/own-view-dialog';
import { useSchools } from './scope';
import { countDrafts, useKeptDrafts } from './kept-drafts';
import { LeaveDialog } from './leave-dialog';
import { useSignOut } from './session';

const itemLook = 'flex items-center gap-2 rounded px-3 py-1.5 outline-none data-highlighted:bg-eucalypt-soft';

/** Who is signed in, how that person likes the screen and the names of people, and the way out. */
export function PersonMenu({ person }: { person: PersonReply }) {
  const { mutate: signOut } = useSignOut();
  const unsaved = useKeptDrafts(countDrafts);
  const { data: schools = [] } = useSchools();
  const [isAsking, setAsking] = useState(false);
  const [isChangingView, setChangingView] = useState(false);
  const [isShowingPasskeys, setShowingPasskeys] = useState(false);
  const [isChangingPassword, setChangingPassword] = useState(false);
  const initials = person.name
    .split(' ')
    .map((name) => name[0])
    .join('');
  return (
    <>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger className="grid size-8 place-items-center rounded-full bg-eucalypt-soft text-[13px] font-bold text-eucalypt">
          <span aria-hidden>{initials}</span>
          <span className="sr-only">{person.name}'s menu</span>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="end"
            className="z-50 min-w-[200px] rounded-md border border-hairline bg-surface p-1 shadow-float"
          >
            <DropdownMenu.Label className="px-3 py-1.5">
              <span className="block font-bold">{person.name}</span>
              <span className="text-[13px] text-quiet">{sayRoles(person.grants, schools)}</span>
            </DropdownMenu.Label>
            <DropdownMenu.Separator className="my-1 h-px bg-hairline" />
            <DropdownMenu.Item className={itemLook} onSelect={() => setChangingView(true)}>
              <Eye size={14} aria-hidden /> Your view
            </DropdownMenu.Item>
            {document.fullscreenEnabled && <FullScreenItem />}
            <DropdownMenu.Item className={itemLook} onSelect={() => setChangingPassword(true)}>
              <KeyRound size={14} aria-hidden /> Change password
            </DropdownMenu.Item>
            <DropdownMenu.Item className={itemLook} onSelect={() => setShowingPasskeys(true)}>
              <Fingerprint size={14} aria-hidden /> Passkeys
            </DropdownMenu.Item>
            <DropdownMenu.Item className={itemLook} onSelect={() => (unsaved > 0 ? setAsking(true) : signOut())}>
              <LogOut size={14} aria-hidden /> Sign out
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      {isChangingView && <OwnViewDialog onClose={() => setChangingView(false)} />}
      {isShowingPasskeys && <PasskeysDialog onClose={() => setShowingPasskeys(false)} />}
      {isChangingPassword && <ChangePasswordDialog name={person.name} onClose={() => setChangingPassword(false)} />}
      <LeaveDialog isOpen={isAsking} onOpenChange={setAsking} onLeave={signOut} />
    </>
  );
}

/** The page alone, without the browser around it and without the list of places, which is then behind its button. */
function FullScreenItem() {
  const isFull = document.fullscreenElement !== null;
  const toggle = () =>
    (isFull ? document.exitFullscreen() : document.documentElement.requestFullscreen()).catch(() =>
      toast.error('This browser has no full screen for this page.'),
    );
  return (
    <DropdownMenu.Item className={itemLook} onSelect={() => void toggle()}>
      <Maximize size={14} aria-hidden /> {isFull ? 'Leave full screen' : 'Full screen'}
    </DropdownMenu.Item>
  );
}
