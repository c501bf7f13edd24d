import { Check, LogOut } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import type { PersonReply } from '#contract/people';
import { usePreferences, type Theme } from './preferences';
import { useSignOut } from './session';

const themes: readonly (readonly [Theme, string])[] = [
  ['light', 'Light'],
  ['dark', 'Dark'],
  ['system', 'As the system'],
];

const itemLook = 'flex items-center gap-2 rounded px-3 py-1.5 outline-none data-highlighted:bg-eucalypt-soft';

/** Who is signed in, light or dark, and the way out. */
export function PersonMenu({ person }: { person: PersonReply }) {
  const theme = usePreferences((state) => state.theme);
  const { mutate: signOut } = useSignOut();
  const initials = person.name
    .split(' ')
    .map((name) => name[0])
    .join('');
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="grid size-8 place-items-center rounded-full bg-eucalypt-soft text-[13px] font-bold text-eucalypt">
        <span aria-hidden>{initials}</span>
        <span className="sr-only">{person.name}: theme and sign out</span>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          className="z-50 min-w-[200px] rounded-md border border-hairline bg-surface p-1 shadow-float"
        >
          <DropdownMenu.Label className="px-3 py-1.5">
            <span className="block font-bold">{person.name}</span>
            <span className="text-[13px] text-quiet">{person.role}</span>
          </DropdownMenu.Label>
          <DropdownMenu.Separator className="my-1 h-px bg-hairline" />
          <DropdownMenu.RadioGroup
            value={theme}
            onValueChange={(value) => usePreferences.setState({ theme: value as Theme })}
          >
            {themes.map(([value, name]) => (
              <DropdownMenu.RadioItem key={value} value={value} className={itemLook}>
                <span className="w-4">
                  <DropdownMenu.ItemIndicator>
                    <Check size={14} />
                  </DropdownMenu.ItemIndicator>
                </span>
                {name}
              </DropdownMenu.RadioItem>
            ))}
          </DropdownMenu.RadioGroup>
          <DropdownMenu.Separator className="my-1 h-px bg-hairline" />
          <DropdownMenu.Item className={itemLook} onSelect={() => signOut()}>
            <LogOut size={14} aria-hidden /> Sign out
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
