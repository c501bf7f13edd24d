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

  /** @throws Refusal not-found where no certificate was issued */
  async ofPeriod(periodId: number): Promise<Buffer> {
    const { certificate, broken, place } = await this.transactions.snapshot(async (queries) => {
      const period = await this.periods.byIdOrThrow(queries, periodId);
      const school = await this.periods.schoolOrThrow(queries, period.schoolId);
      const zone = await this.zone.name(queries);
      return {
        certificate: await this.certificates.lastOrThrow(queries, periodId),
        broken: (await this.certificates.replyOf(queries, periodId))!.broken,
        place: { school: school.name, period: period.name, at: (instant: string) => inWords(instant, zone) },
      };
    });
    return certificatePaper(certificate, broken, place);
  }

  gradesOf(periodId: number): Promise<string> {
    return this.kept.gradesFile(this.transactions.reading, periodId);
  }
}

function inWords(instant: string, zone: string): string {
  const { day, time } = localTime(zone, new Date(instant));
  return `${day}, ${time}`;
}
