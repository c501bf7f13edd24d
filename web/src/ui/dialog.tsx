import { Dialog as Radix } from 'radix-ui';
import { useState, type ReactNode } from 'react';
import { Button } from './button';
import { useFocusReturn } from './use-focus-return';

interface DialogProps {
  readonly isOpen: boolean;
  readonly onOpenChange: (isOpen: boolean) => void;
  readonly title: string;
  readonly description?: ReactNode;
  readonly children: ReactNode;
  /** What to do at the end; stays in sight while the rest scrolls. */
  readonly footer?: ReactNode;
  readonly isWide?: boolean;
  /** Where each choice is kept as it is made, so that leaving loses nothing. */
  readonly savesAtOnce?: boolean;
}

/**
 * A question or a list that wants the whole attention. Esc and a click beside it close it, and the focus goes back; where
 * something was typed or chosen in it since it opened, they ask first.
 */
export function Dialog(props: DialogProps) {
  const { isOpen, onOpenChange, title, description, children, footer, isWide = false, savesAtOnce = false } = props;
  const focus = useFocusReturn();
  const [isTyped, setTyped] = useState(false);
  const [isAsking, setAsking] = useState(false);
  if (!isOpen && (isTyped || isAsking)) {
    setTyped(false);
    setAsking(false);
  }
  const leave = (isStaying: boolean) => {
    if (isStaying) return onOpenChange(true);
    if (isTyped) setAsking(!isAsking);
    else onOpenChange(false);
  };
  return (
    <Radix.Root open={isOpen} onOpenChange={leave}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-veil" />
        <Radix.Content
          {...focus}
          onInput={() => setTyped(!savesAtOnce)}
          {...(description ? {} : { 'aria-describedby': undefined })}
          className={`fixed left-1/2 z-50 flex -translate-x-1/2 flex-col ${isWide ? 'top-[5vh] max-h-[90vh] w-[min(860px,94vw)]' : 'top-[12vh] max-h-[76vh] w-[min(560px,92vw)]'} overflow-hidden rounded-md border border-hairline bg-surface shadow-float`}
        >
          <Radix.Title className="px-5 pt-4 text-[16px] font-bold">{title}</Radix.Title>
          {description && <Radix.Description className="px-5 pt-1 text-quiet">{description}</Radix.Description>}
          <div className="min-h-0 flex-1 overflow-auto px-5 pt-3 pb-5">{children}</div>
          {footer && !isAsking && (
            <div className="flex items-center gap-2 border-t border-hairline px-5 py-3">{footer}</div>
          )}
          {isAsking && (
            <div role="alert" className="flex items-center gap-2 border-t border-hairline bg-wattle-soft px-5 py-3">
              <p className="mr-auto font-semibold">What you typed here is not saved.</p>
              <Button onClick={() => onOpenChange(false)}>Discard</Button>
              <Button look="main" writes={false} autoFocus onClick={() => setAsking(false)}>
                Keep editing
              </Button>
            </div>
          )}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
