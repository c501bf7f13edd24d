import { HardDrive } from 'lucide-react';
import { useKeptDrafts } from './kept-drafts';

/** Says while the browser keeps nothing that what is typed lasts no longer than the page. */
export function UnkeptBanner() {
  const isKept = useKeptDrafts((state) => state.isKept);
  if (isKept) return null;
  return (
    <p role="alert" className="flex items-center gap-2 border-b border-wattle-fill bg-wattle-soft px-6 py-2">
      <HardDrive size={15} aria-hidden />
      This browser has no room to keep what you type. Save it before you leave or reload the page.
    </p>
  );
}
