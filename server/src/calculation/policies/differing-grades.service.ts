import { Injectable } from '@nestjs/common';
import { decimalOrThrow, formatDecimal, fromDecimal, roundings, roundTo } from '#core/numbers';
import type { DifferingReply } from '#contract/calculation';
import type { SchoolPeriod } from '#server/calendar';
import type { Queries } from '#server/platform';
import { ReportItemsRepository } from '#server/report-items';
import { BookSectionsRepository } from '../books/book-sections.repository.js';
import { CalculatedGradesRepository } from '../calculated-grades.repository.js';

/** Posted grades that are no longer what their grade book comes to. */
@Injectable()
export class DifferingGrades {
  constructor(
    private readonly sections: BookSectionsRepository,
    private readonly items: ReportItemsRepository,
    private readonly grades: CalculatedGradesRepository,
  ) {}

  async in(queries: Queries, period: SchoolPeriod): Promise<DifferingReply[]> {
    const items = new Map((await this.items.ofSchool(queries, period.schoolId)).map((item) => [item.id, item]));
    const names = new Map((await this.sections.inPeriod(queries, period)).map(({ id, name }) => [id, name]));
    return (await this.grades.postedBeside(queries, period.id)).flatMap(({ posted, calculated, ...row }) => {
      const { digits, rounding } = items.get(row.itemId)!;
      const rounded = roundTo(fromDecimal(decimalOrThrow(calculated)), digits, roundings[rounding]);
      const stands = roundTo(fromDecimal(decimalOrThrow(posted)), digits, roundings[rounding]);
      const section = names.get(row.sectionId);
      if (rounded.units === stands.units || section === undefined) return [];
      return [{ ...row, section, posted: formatDecimal(stands), calculated: formatDecimal(rounded) }];
    });
  }
}
