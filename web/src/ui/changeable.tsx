import type { ReactNode } from 'react';
import { useViewOnly } from './view-only';

/** What is changed in place; on a page that can only be looked at its fields are off. */
export function Changeable({ children }: { children: ReactNode }) {
  const { isViewOnly } = useViewOnly();
  return (
    <fieldset disabled={isViewOnly} className="contents">
      {children}
    </fieldset>
  );
}

/** What there is to change things with, such as a place for a file; on a page that can only be looked at it is not there. */
export function ToChange({ children }: { children: ReactNode }) {
  const { isViewOnly } = useViewOnly();
  return isViewOnly ? null : children;
}
