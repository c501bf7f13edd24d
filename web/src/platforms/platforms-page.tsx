import { useState } from 'react';
import { Link } from 'react-router';
import type { PlatformReply } from '#contract/platforms';
import { agreeing, counted } from '#contract/messages';
import { PageFace } from '../shell/awaited-page';
import { useScope } from '../shell/scope';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { showCount, showInstant } from '../ui/format';
import { Figure, Page, Strong } from '../ui/page';
import { Empty, Panel } from '../ui/panel';
import { ConnectDialog } from './connect-dialog';
import { usePlatformActions, usePlatforms } from '../matching/queries';

/** The learning platforms of the school: where they are, what they hold, and when that was read. */
export function PlatformsPage() {
  const { schoolId, path } = useScope();
  const connected = usePlatforms(schoolId);
  const { data: platforms } = connected;
  const [isConnecting, setConnecting] = useState(false);
  if (!platforms) return <PageFace queries={[connected]} />;
  const open = platforms.reduce((sum, platform) => sum + platform.open, 0);
  return (
    <Page
      headline={
        platforms.length === 0 ? (
          <>No learning platform is connected to this school.</>
        ) : (
          <>
            <Strong>{counted(platforms.length, 'learning platform')}</Strong> {agreeing(platforms.length, 'is')}{' '}
            connected.{' '}
            {open === 0 ? (
              'All their classes and names are decided.'
            ) : (
              <>
                <Figure tone="warns" to={path('matches')}>
                  {counted(open, 'class or name')}
                </Figure>{' '}
                {agreeing(open, 'waits')} to be joined to ours.
              </>
            )}
          </>
        )
      }
      actions={
        <Button writes look={platforms.length === 0 ? 'main' : 'plain'} onClick={() => setConnecting(true)}>
          Connect a platform…
        </Button>
      }
    >
      {platforms.length === 0 && (
        <Panel>
          <Empty title="No platform yet">
            A platform that answers rosters and columns over HTTP can be joined to our sections and categories, once for
            all classes. Totals also come in as files.
          </Empty>
        </Panel>
      )}
      {platforms.map((platform) => (
        <PlatformCard key={platform.id} platform={platform} />
      ))}
      {isConnecting && <ConnectDialog isOpen onOpenChange={setConnecting} />}
    </Page>
  );
}

function PlatformCard({ platform }: { platform: PlatformReply }) {
  const { schoolId, path } = useScope();
  const { read, cancel, remove } = usePlatformActions(schoolId);
  const [isLeaving, setLeaving] = useState(false);
  const { id, name, address, state, readAt, problem } = platform;
  return (
    <Panel label={name} className="px-5 py-4">
      <div className="flex items-center gap-3">
        <div className="min-w-0 flex-1">
          <h2 className="text-[16px] font-bold">{name}</h2>
          <p className="truncate text-[13px] text-quiet">{address}</p>
        </div>
        {state === 'reading' ? (
          <Button writes onClick={() => cancel.mutate(id)}>
            Stop
          </Button>
        ) : (
          <Button writes onClick={() => read.mutate(id)} disabled={read.isPending}>
            {readAt === null ? 'Read it' : 'Read it again'}
          </Button>
        )}
        <Button writes look="quiet" onClick={() => setLeaving(true)}>
          Disconnect…
        </Button>
      </div>
      <dl className="mt-3 grid grid-cols-4 gap-6 text-[13px]">
        <Fact name="Classes">{showCount(platform.classes)}</Fact>
        <Fact name="Students">{showCount(platform.people)}</Fact>
        <Fact name="Waiting to be joined">
          {platform.open === 0 ? (
            'none'
          ) : (
            <Link className="font-bold text-wattle underline" to={path(`matches?platform=${id}`)}>
              {showCount(platform.open)}
            </Link>
          )}
        </Fact>
        <Fact name="Last read">{readAt === null ? 'never' : showInstant(readAt)}</Fact>
      </dl>
      <div aria-live="polite">
        {state === 'reading' && <ReadingProgress platform={platform} />}
        {state === 'failed' && problem && (
          <p role="alert" className="mt-3 border-l-[3px] border-waratah pl-3 text-waratah">
            {problem} {readAt !== null && <span className="text-ink">What was read before is still here.</span>}
          </p>
        )}
      </div>
      <Dialog
        isOpen={isLeaving}
        onOpenChange={setLeaving}
        title={`Disconnect ${name}?`}
        description={`Its ${counted(platform.classes, 'class')} and every join that was decided for them are forgotten. Grades stay as they are.`}
        footer={
          <>
            <Button writes look="danger" onClick={() => remove.mutate(id, { onSuccess: () => setLeaving(false) })}>
              Disconnect
            </Button>
            <Button onClick={() => setLeaving(false)}>Keep it</Button>
          </>
        }
      >
        <p className="text-[13px] text-quiet">If you connect it again, everything has to be matched again.</p>
      </Dialog>
    </Panel>
  );
}

function Fact({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <div>
      <dt className="text-quiet">{name}</dt>
      <dd className="figures mt-0.5 text-[14px]">{children}</dd>
    </div>
  );
}

function ReadingProgress({ platform: { done, total } }: { platform: PlatformReply }) {
  return (
    <div className="mt-3 text-[13px]">
      <p className="mb-1">{total === 0 ? 'Reading people and classes…' : `Reading class ${done + 1} of ${total}…`}</p>
      <progress className="h-1.5 w-full" aria-label="Reading" value={done} max={Math.max(1, total)} />
    </div>
  );
}
