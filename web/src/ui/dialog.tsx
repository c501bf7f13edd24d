import { Dialog as Radix } from 'radix-ui';
import type { ReactNode } from 'react';
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
}

/** A question or a list that wants the whole attention. Esc and a click beside it close it, and the focus goes back. */
export function Dialog({ isOpen, onOpenChange, title, description, children, footer, isWide = false }: DialogProps) {
  const focus = useFocusReturn();
  return (
    <Radix.Root open={isOpen} onOpenChange={onOpenChange}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-veil" />
        <Radix.Content
          {...focus}
          {...(description ? {} : { 'aria-describedby': undefined })}
          className={`fixed left-1/2 z-50 flex -translate-x-1/2 flex-col ${isWide ? 'top-[5vh] max-h-[90vh] w-[min(860px,94vw)]' : 'top-[12vh] max-h-[76vh] w-[min(560px,92vw)]'} overflow-hidden rounded-md border border-hairline bg-surface shadow-float`}
        >
          <Radix.Title className="px-5 pt-4 text-[16px] font-bold">{title}</Radix.Title>
          {description && <Radix.Description className="px-5 pt-1 text-quiet">{description}</Radix.Description>}
          <div className="min-h-0 flex-1 overflow-auto px-5 pt-3 pb-5">{children}</div>
          {footer && <div className="flex items-center gap-2 border-t border-hairline px-5 py-3">{footer}</div>}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
