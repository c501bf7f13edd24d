import { useRouteError } from 'react-router';
import { Button } from '../ui/button';

/** In the place of a screen that a fault of ours has stopped: what was typed is kept, and the way on. */
export function BrokenPage() {
  const error = useRouteError();
  return (
    <div role="alert" className="mx-auto max-w-xl space-y-3 px-6 py-24">
      <h1 className="text-[20px] font-medium">This page stopped because of an error in Wombat.</h1>
      <p>Nothing was saved by it. What you typed and had not saved is kept in this browser.</p>
      <p className="figures text-[12px] text-quiet">{error instanceof Error ? error.message : String(error)}</p>
      <p className="flex gap-2">
        <Button look="main" writes={false} onClick={() => location.reload()}>
          Reload
        </Button>
        <Button onClick={() => location.assign('/')}>Go to home</Button>
      </p>
    </div>
  );
}
