/** A page in its own shape while its contents are on their way: a sentence, a row of actions, rows. */
export function Skeleton() {
  return (
    <div role="status" aria-label="Loading" className="flex flex-1 flex-col gap-3.5 px-6 pt-5 pb-5">
      <div aria-hidden className="h-7 w-[520px] max-w-full rounded bg-raised" />
      <div aria-hidden className="h-8 w-[240px] rounded bg-raised" />
      <div
        aria-hidden
        className="min-h-0 flex-1 space-y-px overflow-hidden rounded-md border border-hairline bg-surface"
      >
        {Array.from({ length: 12 }, (_row, at) => (
          <div key={at} className="flex h-8 items-center gap-4 border-b border-hairline px-4">
            <div className="h-3 rounded bg-raised" style={{ width: `${22 + ((at * 7) % 18)}%` }} />
            <div className="ml-auto h-3 w-[12%] rounded bg-raised" />
          </div>
        ))}
      </div>
    </div>
  );
}
