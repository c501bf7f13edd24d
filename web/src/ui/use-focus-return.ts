import { useRef } from 'react';

/** What a dialog does to give the focus back to whatever had it when it opened. */
export function useFocusReturn() {
  const had = useRef<Element | null>(null);
  return {
    onOpenAutoFocus: () => {
      had.current = document.activeElement;
    },
    onCloseAutoFocus: (event: Event) => {
      event.preventDefault();
      if (had.current instanceof HTMLElement) had.current.focus();
    },
  };
}
