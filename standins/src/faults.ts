/** What can go wrong with a platform, on demand. */
export const faultKinds = [
  'slow',
  'error',
  'cut',
  'repeatedPage',
  'staleAnswer',
  'expiredToken',
  'wrongTotal',
  'page',
] as const;
export type FaultKind = (typeof faultKinds)[number];

/** A fault that strikes the next requests whose path holds a text, so many times. */
export interface Fault {
  readonly kind: FaultKind;
  readonly path: string;
  readonly times: number;
  /** Requests that are let through first. */
  readonly after?: number;
}

/** Faults in the order in which they were asked for; each strikes as often as it was told. */
export class FaultList {
  private pending: { kind: FaultKind; path: string; times: number; after: number }[] = [];

  add({ after = 0, ...fault }: Fault): void {
    this.pending.push({ ...fault, after });
  }

  clear(): void {
    this.pending = [];
  }

  /** The fault that strikes this request, if any. */
  strike(path: string): FaultKind | undefined {
    const fault = this.pending.find((each) => path.includes(each.path));
    if (!fault) return undefined;
    if (fault.after > 0) {
      fault.after--;
      return undefined;
    }
    fault.times--;
    if (fault.times <= 0) this.pending = this.pending.filter((each) => each !== fault);
    return fault.kind;
  }
}
