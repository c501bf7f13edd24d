import { Injectable } from '@nestjs/common';
import { PeriodsRepository } from '#server/calendar';
import { Refusal, type Queries } from '#server/platform';
import { counted, usesInWords } from '#contract/messages';
import type { ScaleValue } from './scale-value.js';
import { ScalesRepository } from './scales.repository.js';

/** What scales may not become. */
@Injectable()
export class ScaleChecks {
  constructor(
    private readonly scales: ScalesRepository,
    private readonly periods: PeriodsRepository,
  ) {}

  /** @throws Refusal fields-wrong, tie-cycle, in-use, period-sealed */
  async refuseUnfit(queries: Queries, values: ReadonlyMap<string, ScaleValue | null>): Promise<void> {
    const ties = new Map(
      (await this.scales.all(queries)).map(({ id, name, schoolId, tie }) => [id, { name, schoolId, toId: tie?.toId }]),
    );
    for (const [id, value] of values) {
      if (value) ties.set(Number(id), { name: value.name, schoolId: value.schoolId, toId: value.tie?.toId });
      else ties.delete(Number(id));
    }
    for (const [key, value] of values) {
      const id = Number(key);
      if (value) {
        refuseName(ties, id, value);
        refuseRing(ties, id);
      } else await this.refuseUsed(queries, id);
      await this.refuseVersions(queries, id, value);
    }
  }

  private async refuseUsed(queries: Queries, id: number): Promise<void> {
    const uses = usesInWords(await this.scales.usesOf(queries, id));
    if (uses === '') return;
    const { name } = await this.scales.byIdOrThrow(queries, id);
    const instead = 'Use another scale in its places first; a scale that grades were posted under stays.';
    throw new Refusal('in-use', { what: 'The scale', name, uses, instead });
  }

  /** A version that goes may not have been posted under, and one that comes or goes may not reach a sealed period. */
  private async refuseVersions(queries: Queries, id: number, value: ScaleValue | null): Promise<void> {
    const kept = await this.scales.versionUses(queries, id);
    const gone = kept.filter(({ number }) => !value?.versions.some((each) => each.number === number));
    for (const { number, grades } of gone) {
      if (grades === 0) continue;
      const instead = 'Save another version instead: what is posted keeps the one it was posted under.';
      const uses = counted(grades, 'posted grade');
      throw new Refusal('in-use', { what: 'The version', name: `Version ${number}`, uses, instead });
    }
    const added = value?.versions.filter(({ number }) => !kept.some((each) => each.number === number)) ?? [];
    const schoolId = value?.schoolId ?? (await this.scales.schoolOf(queries, id));
    // What was never in use can go and come back whatever is sealed.
    if (value === null || kept.length === 0) return;
    for (const { fromPeriodId } of [...gone, ...added])
      await this.periods.refuseSealedFrom(queries, await this.periods.byIdOrThrow(queries, fromPeriodId), schoolId);
  }
}

interface TiedScale {
  readonly name: string;
  readonly schoolId: number | null;
  readonly toId: number | undefined;
}

function refuseName(scales: ReadonlyMap<number, TiedScale>, id: number, { name, schoolId }: ScaleValue): void {
  const folded = name.trim().toLowerCase();
  const isClash = ([other, scale]: [number, TiedScale]) =>
    other !== id &&
    (scale.schoolId === schoolId || scale.schoolId === null || schoolId === null) &&
    scale.name.trim().toLowerCase() === folded;
  if (![...scales].some(isClash)) return;
  throw new Refusal('fields-wrong', {}, [{ field: 'name', detail: 'a name that no other scale of the school has' }]);
}

function refuseRing(scales: ReadonlyMap<number, TiedScale>, id: number): void {
  const { name, toId } = scales.get(id)!;
  const seen = new Set<number>();
  for (let at = toId; at !== undefined && !seen.has(at); at = scales.get(at)?.toId) {
    if (at === id) throw new Refusal('tie-cycle', { name, other: scales.get(toId!)!.name });
    seen.add(at);
  }
}
