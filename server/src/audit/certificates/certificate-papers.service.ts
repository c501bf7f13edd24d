import { Injectable } from '@nestjs/common';
import { localTime } from '#core/calendar';
import { PeriodsRepository } from '#server/calendar';
import { DistrictZone, Transactions } from '#server/platform';
import { certificatePaper } from './certificate-paper.js';
import { CertificatesRepository } from './certificates.repository.js';
import { CertificatesService } from './certificates.service.js';

/** What is handed out of a closed audit: the certificate on paper, and the grades that it is about. */
@Injectable()
export class CertificatePapersService {
  constructor(
    private readonly transactions: Transactions,
    private readonly periods: PeriodsRepository,
    private readonly certificates: CertificatesService,
    private readonly kept: CertificatesRepository,
    private readonly zone: DistrictZone,
  ) {}

  /**
   * A certificate on paper.
   * @param id of which; without one, the last of all of the period
   * @throws Refusal not-found where none was issued
   */
  async of(periodId: number, id?: number): Promise<Buffer> {
    const { certificate, broken, place } = await this.transactions.snapshot(async (queries) => {
      const period = await this.periods.byIdOrThrow(queries, periodId);
      const school = await this.periods.schoolOrThrow(queries, period.schoolId);
      const zone = await this.zone.name(queries);
      return {
        ...(await this.certificates.oneOrThrow(queries, periodId, id)),
        place: { school: school.name, period: period.name, at: (instant: string) => inWords(instant, zone) },
      };
    });
    return certificatePaper(certificate, broken, place);
  }

  /** The grades as they are now, in the file that a certificate knows by its hash. @param id as for the paper */
  async gradesOf(periodId: number, id?: number): Promise<string> {
    return this.transactions.snapshot(async (queries) => {
      const courseIds =
        id === undefined ? [] : (await this.certificates.oneOrThrow(queries, periodId, id)).certificate.courseIds;
      return this.kept.gradesFile(queries, periodId, courseIds);
    });
  }
}

function inWords(instant: string, zone: string): string {
  const { day, time } = localTime(zone, new Date(instant));
  return `${day}, ${time}`;
}
