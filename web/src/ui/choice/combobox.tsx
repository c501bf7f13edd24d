import { Command } from 'cmdk';
import { ChevronDown } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useId, useRef, useState } from 'react';
import { hasWords } from './has-words';
import { MiddleCut } from '../middle-cut';

export interface Option {
  readonly value: string;
  readonly text: string;
  readonly isDisabled: boolean;
}

interface ComboboxProps {
  readonly label: string | undefined;
  readonly id: string | undefined;
  readonly className: string | undefined;
  readonly isDisabled: boolean | undefined;
  readonly isFaulty: boolean;
  readonly describedBy: string | undefined;
  readonly options: readonly Option[];
  readonly value: string;
  readonly onChoose: (value: string) => void;
}

/**
 * A choice from a long list, by typing the beginnings of words. It opens by Enter, Space, an arrow or a letter, which
 * begins the search; Esc leaves what was chosen.
 */
export function Combobox({ label, id, className = '', isDisabled, isFaulty, describedBy, ...props }: ComboboxProps) {
  const { options, value, onChoose } = props;
  const [isOpen, setOpen] = useState(false);
  const [text, setText] = useState('');
  const listId = useId();
  const input = useRef<HTMLInputElement>(null);
  const chosen = options.find((option) => option.value === value);
  const open = (begun: string) => {
    setText(begun);
    setOpen(true);
  };
  return (
    <Popover.Root open={isOpen} onOpenChange={(to) => (to ? open('') : setOpen(false))}>
      <Popover.Trigger
        id={id}
        role="combobox"
        aria-expanded={isOpen}
        aria-controls={listId}
        aria-label={label}
        aria-haspopup="listbox"
        aria-invalid={isFaulty}
        aria-describedby={describedBy}
        disabled={isDisabled}
        onKeyDown={(event) => {
          const isLetter =
            event.key.length === 1 && event.key !== ' ' && !event.ctrlKey && !event.metaKey && !event.altKey;
          if (!isLetter && event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return;
          event.preventDefault();
          event.stopPropagation();
          open(isLetter ? event.key : '');
        }}
        className={`inline-flex items-center gap-1 text-left ${className}`}
      >
        <span className="min-w-0 flex-1">
          <MiddleCut text={chosen?.text ?? ''} />
        </span>
        <ChevronDown size={13} aria-hidden className="shrink-0 text-quiet" />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          id={listId}
          align="start"
          sideOffset={3}
          collisionPadding={8}
          onOpenAutoFocus={(event) => {
            event.preventDefault();
            const { current } = input;
            current?.focus();
            current?.setSelectionRange(current.value.length, current.value.length); // typing goes on behind the letter
          }}
          className="z-60 w-[max(240px,var(--radix-popover-trigger-width))] max-w-[92vw] overflow-hidden rounded-md border border-hairline bg-surface text-[13px] text-ink shadow-float"
        >
          <Command
            label={label ?? 'Choose'}
            defaultValue={keyOf(chosen)}
            filter={(_key, search, words) => (hasWords(words?.[0] ?? '', search) ? 1 : 0)}
            onKeyDown={(event) => event.key !== 'Escape' && event.stopPropagation()}
          >
            <Command.Input
              ref={input}
              value={text}
              onValueChange={setText}
              placeholder={`One of ${options.length}`}
              className="h-9 w-full border-b border-hairline bg-transparent px-3 outline-none"
            />
            <Command.List className="max-h-[min(320px,var(--radix-popover-content-available-height))] overflow-auto py-1">
              <Command.Empty className="px-3 py-3 text-quiet">Nothing matches.</Command.Empty>
              {options.map((option) => (
                <Command.Item
                  key={option.value}
                  value={keyOf(option)}
                  keywords={[option.text]}
                  disabled={option.isDisabled}
                  onSelect={() => {
                    setOpen(false);
                    if (option.value !== value) onChoose(option.value);
                  }}
                  className={`px-3 py-1 [overflow-wrap:anywhere] data-[disabled=true]:text-quiet data-[selected=true]:bg-eucalypt-soft ${option === chosen ? 'font-semibold' : ''}`}
                >
                  {option.text}
                </Command.Item>
              ))}
            </Command.List>
          </Command>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** What the list knows an option by; never empty, and never another's. */
function keyOf(option: Option | undefined): string {
  return option ? `option ${option.value}` : '';
}
