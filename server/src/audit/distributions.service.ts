import { Injectable } from '@nestjs/common';
import { leastStudents } from '#core/audit';
import { orderBands } from '#core/scales';
import { meanShift, type Sample } from '#core/statistics';
import type { DistributionReply, DistributionsReply, MeanShiftReply } from '#contract/audit';
import { PeriodsRepository } from '#server/calendar';
import { PeriodViews, reportedOrThrow } from '#server/period-view';
import { Refusal, Transactions } from '#server/platform';
import { DistributionsRepository, type LabelCount } from './distributions.repository.js';

/** How the labels of a section lie beside those of its sister sections, and beside its course's earlier periods. */
@Injectable()
export class DistributionsService {
  constructor(
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
    private readonly views: PeriodViews,
    private readonly distributions: DistributionsRepository,
  ) {}

  /** Of fewer than ten grades nothing is told. @throws Refusal not-found */
  async of(periodId: number, sectionId: number, itemId: number): Promise<DistributionsReply> {
    return this.transactions.snapshot(async (queries) => {
      const period = await this.periods.byIdOrThrow(queries, periodId);
      const { sections, scales } = reportedOrThrow(await this.views.of(queries, period), itemId);
      const section = sections.find(({ id }) => id === sectionId);
      if (!section) throw new Refusal('not-found', { what: 'section that reports the item', id: sectionId });
      const all = await this.distributions.ofCourse(queries, { itemId, sectionId, periodId });
      const known = orderBands((scales.get(sectionId)?.version.bands ?? []).filter(({ isOff }) => !isOff));
      const labels = [...new Set([...known.map(({ label }) => label), ...all.map(({ label }) => label)])];
      const now = all.filter((row) => row.periodId === periodId);
      const before = all.filter((row) => row.periodId !== periodId);
      const isOwn = (row: LabelCount) => row.sectionId === sectionId;
      // A section that ran then already is compared with itself, another year with all sections of the course.
      const earlier = before.filter(
        (row) => isOwn(row) || !before.some((each) => each.periodId === row.periodId && isOwn(each)),
      );
      const [own] = gathered(now.filter(isOwn), labels, ({ section: name }) => name);
      const { own: ownPercents, others } = await this.distributions.percentsOf(queries, {
        itemId,
        sectionId,
        periodId,
      });
      return {
        shift: scales.get(sectionId)?.version.kind === 'percent' ? shiftReply(ownPercents, others) : null,
        labels,
        own: own ?? null,
        sisters: gathered(
          now.filter((row) => !isOwn(row)),
          labels,
          ({ section: name }) => name,
        ),
        earlier: gathered(earlier, labels, (row) => (isOwn(row) ? row.period : `${row.period}, all sections`)),
      };
    });
  }
}

function shiftReply(own: Sample, others: Sample): MeanShiftReply | null {
  if (own.count < leastStudents || others.count < leastStudents) return null;
  const found = meanShift(own, others);
  if (!found) return null;
  const [shift, low, high] = [found.shift, found.low, found.high].map((each) => each.toFixed(1).replace('-0.0', '0.0'));
  return { shift: shift!, low: low!, high: high!, own: own.count, others: others.count };
}

/** One distribution for each name, of those with enough grades to tell of. */
function gathered(
  rows: readonly LabelCount[],
  labels: readonly string[],
  nameOf: (row: LabelCount) => string,
): DistributionReply[] {
  const found = new Map<string, number[]>();
  for (const row of rows) {
    const name = nameOf(row).trim();
    const counts = found.get(name) ?? labels.map(() => 0);
    counts[labels.indexOf(row.label)]! += row.grades;
    found.set(name, counts);
  }
  return [...found]
    .map(([name, counts]) => ({ name, grades: counts.reduce((sum, count) => sum + count, 0), counts }))
    .filter(({ grades }) => grades >= leastStudents);
}
