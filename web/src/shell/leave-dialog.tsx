import { counted, listed, type CountedThing } from '#contract/messages';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { discardDrafts, useKeptDrafts, type DraftsOfKind } from './kept-drafts';

interface LeaveDialogProps {
  readonly isOpen: boolean;
  readonly onOpenChange: (isOpen: boolean) => void;
  readonly onLeave: () => void;
}

/** Asks somebody who signs out what is to become of what they have not saved. */
export function LeaveDialog({ isOpen, onOpenChange, onLeave }: LeaveDialogProps) {
  const kinds = useKeptDrafts((state) => state.kinds);
  const leave = () => {
    onOpenChange(false);
    onLeave();
  };
  return (
    <Dialog
      isOpen={isOpen}
      onOpenChange={onOpenChange}
      title={`You have unsaved changes to ${changedInWords(kinds)}`}
      footer={
        <>
          <Button look="main" writes={false} autoFocus onClick={leave}>
            Keep them and sign out
          </Button>
          <Button
            look="danger"
            writes={false}
            onClick={() => {
              discardDrafts();
              leave();
            }}
          >
            Discard them and sign out
          </Button>
          <Button className="ml-auto" onClick={() => onOpenChange(false)}>
            Stay
          </Button>
        </>
      }
    >
      <p>
        Kept, they stay in this browser and are here when you sign in again. Nobody else who signs in sees them or can
        save them.
      </p>
    </Dialog>
  );
}

/** What people call what the drafts of each kind are of. */
const things: Readonly<Record<string, CountedThing>> = {
  assignments: 'list of rules',
  calendars: 'calendar',
  courses: 'course list',
  people: 'list of people',
  sections: 'list of sections',
  enrollments: 'list of enrollments',
  gpa: 'GPA setting',
  marks: 'grade sheet',
  policies: 'policy',
  scales: 'scale',
  scores: 'grade book',
};

/** @example changedInWords({ marks: { '13/1/4': draft } }) // '1 grade sheet' */
function changedInWords(kinds: Readonly<Record<string, DraftsOfKind>>): string {
  const counts = Object.entries(kinds).map(([kind, drafts]) => [kind, Object.keys(drafts).length] as const);
  return listed(
    counts.filter(([, count]) => count > 0).map(([kind, count]) => counted(count, things[kind] ?? 'thing')),
  );
}
