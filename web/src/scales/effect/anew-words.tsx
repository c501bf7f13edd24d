import { showCount } from '../../ui/format';
import { Strong } from '../../ui/page';

/** How many would pass anew, and how many fail; nothing where nobody would. */
export function AnewWords({ passAnew, failAnew }: { passAnew: number; failAnew: number }) {
  return (
    <>
      {passAnew > 0 && (
        <>
          <Strong>{showCount(passAnew)}</Strong> would pass anew{failAnew > 0 && ' and '}
        </>
      )}
      {failAnew > 0 && (
        <>
          <Strong tone="blocks">{showCount(failAnew)}</Strong> would fail anew
        </>
      )}
    </>
  );
}
