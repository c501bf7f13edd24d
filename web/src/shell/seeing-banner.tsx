import { Eye } from 'lucide-react';
import { useNavigate } from 'react-router';
import { Button } from '../ui/button';
import { useSeeAs, useSession } from './session';
import { showProblem } from './show-problem';

/** Says whose view it is, where it is not one's own, and leads back. */
export function SeeingBanner() {
  const { data: session } = useSession();
  const seeAs = useSeeAs();
  const navigate = useNavigate();
  if (!session?.seenBy) return null;
  const back = () => seeAs.mutate(null, { onSuccess: () => void navigate('/'), onError: showProblem });
  return (
    <div role="note" className="flex items-center gap-3 border-b border-estuary bg-estuary-soft px-6 py-1.5">
      <Eye size={15} aria-hidden />
      <span>
        You see what <b>{session.person.name}</b> sees, and change nothing.
      </span>
      <Button className="ml-auto" disabled={seeAs.isPending} onClick={back}>
        Back to my own view
      </Button>
    </div>
  );
}
