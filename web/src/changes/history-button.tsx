import { openDrawer } from '../shell/drawer-store';
import { Button } from '../ui/button';
import { ThingHistory } from './thing-history';

interface HistoryButtonProps {
  /** Such as "report-item 102". */
  readonly thing: string;
  readonly called: string;
  /** Before the drawer opens, so that what lies over it can close. */
  readonly onOpen?: () => void;
}

/** Opens the history of a thing in the drawer. */
export function HistoryButton({ thing, called, onOpen }: HistoryButtonProps) {
  return (
    <Button
      onClick={() => {
        onOpen?.();
        openDrawer(`History of ${called}`, <ThingHistory thing={thing} />);
      }}
    >
      History
    </Button>
  );
}
