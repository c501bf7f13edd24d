import { openDrawer } from '../shell/drawer-store';
import { Button } from '../ui/button';
import { ThingHistory } from './thing-history';

interface HistoryButtonProps {
  /** Such as "report-item 102". */
  readonly thing: string;
  readonly called: string;
  /** Before the drawer opens, so that what lies over it can close. */
  readonly onOpen?: () => void;
  readonly className?: string;
}

/** Opens the history of a thing in the drawer. */
export function HistoryButton({ thing, called, onOpen, className }: HistoryButtonProps) {
  return (
    <Button
      aria-label={`History of ${called}`}
      className={className}
      onClick={() => {
        onOpen?.();
        openDrawer(`History of ${called}`, <ThingHistory thing={thing} />);
      }}
    >
      History
    </Button>
  );
}
