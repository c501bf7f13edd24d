import { X } from 'lucide-react';
import { useEffect, type ReactNode } from 'react';

/** The drawer at the right for workings and evidence. The page stays usable beside it; Esc closes it. */
export function Drawer({ title, onClose, children }: { title: string; onClose: () => void; children: ReactNode }) {
  useEffect(() => {
    const onKeyDown = (event: KeyboardEvent) => {
      if (event.key === 'Escape' && !event.defaultPrevented) onClose();
    };
    window.addEventListener('keydown', onKeyDown);
    return () => window.removeEventListener('keydown', onKeyDown);
  }, [onClose]);
  return (
    <aside
      aria-label={title}
      className="flex w-[380px] shrink-0 flex-col overflow-auto border-l border-hairline bg-surface"
    >
      <header className="flex items-center gap-2 px-5 pt-4 pb-1">
        <h2 className="text-[13px] font-semibold text-quiet">{title}</h2>
        <button
          type="button"
          onClick={onClose}
          aria-label="Close"
          className="ml-auto rounded-md p-1 text-quiet hover:bg-eucalypt-soft"
        >
          <X size={16} />
        </button>
      </header>
      <div className="flex-1 px-5 pb-5">{children}</div>
    </aside>
  );
}
