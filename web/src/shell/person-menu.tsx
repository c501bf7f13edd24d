import { Check, KeyRound, LogOut } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import type { PersonReply } from '#contract/people';
import { useState } from 'react';
import { ChangePasswordDialog } from '../people/accounts/change-password-dialog';
import { sayRoles } from '../people/accounts/role-words';
import { useSchools } from './scope';
import { countDrafts, useKeptDrafts } from './kept-drafts';
import { LeaveDialog } from './leave-dialog';
import { usePreferences, type Theme } from './preferences';
import { useSignOut } from './session';
import { usePeopleOrder, type PeopleOrder } from '../ui/people-order';

const themes: readonly (readonly [Theme, string])[] = [
  ['light', 'Light'],
  ['dark', 'Dark'],
  ['system', 'As the system'],
];

const orders: readonly (readonly [PeopleOrder, string])[] = [
  ['family', 'Carrow, Hale'],
  ['given', 'Hale Carrow'],
];

const itemLook = 'flex items-center gap-2 rounded px-3 py-1.5 outline-none data-highlighted:bg-eucalypt-soft';

/** Who is signed in, how that person likes the screen and the names of people, and the way out. */
export function PersonMenu({ person }: { person: PersonReply }) {
  const theme = usePreferences((state) => state.theme);
  const [order, setOrder] = usePeopleOrder();
  const { mutate: signOut } = useSignOut();
  const unsaved = useKeptDrafts(countDrafts);
  const { data: schools = [] } = useSchools();
  const [isAsking, setAsking] = useState(false);
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
            <Radios
              label="Theme"
              options={themes}
              value={theme}
              onChoose={(to) => usePreferences.setState({ theme: to })}
            />
            <DropdownMenu.Separator className="my-1 h-px bg-hairline" />
            <Radios label="People by" options={orders} value={order} onChoose={setOrder} />
            <DropdownMenu.Separator className="my-1 h-px bg-hairline" />
            <DropdownMenu.Item className={itemLook} onSelect={() => setChangingPassword(true)}>
              <KeyRound size={14} aria-hidden /> Change password
            </DropdownMenu.Item>
            <DropdownMenu.Item className={itemLook} onSelect={() => (unsaved > 0 ? setAsking(true) : signOut())}>
              <LogOut size={14} aria-hidden /> Sign out
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      {isChangingPassword && <ChangePasswordDialog name={person.name} onClose={() => setChangingPassword(false)} />}
      <LeaveDialog isOpen={isAsking} onOpenChange={setAsking} onLeave={signOut} />
    </>
  );
}

function Radios<Value extends string>({
  label,
  options,
  value,
  onChoose,
}: {
  label: string;
  options: readonly (readonly [Value, string])[];
  value: Value;
  onChoose: (value: Value) => void;
}) {
  return (
    <DropdownMenu.RadioGroup
      aria-label={label}
      value={value}
      onValueChange={(to) => onChoose(options.find(([each]) => each === to)![0])}
    >
      <DropdownMenu.Label className="px-3 pt-1 text-[12px] text-quiet">{label}</DropdownMenu.Label>
      {options.map(([each, name]) => (
        <DropdownMenu.RadioItem key={each} value={each} className={itemLook}>
          <span className="w-4">
            <DropdownMenu.ItemIndicator>
              <Check size={14} />
            </DropdownMenu.ItemIndicator>
          </span>
          {name}
        </DropdownMenu.RadioItem>
      ))}
    </DropdownMenu.RadioGroup>
  );
}
