import { Injectable } from '@nestjs/common';
import { checkCodes, type SpecialCode } from '#core/posting';
import {
  bodyOfCode,
  codeFaultFields,
  codeFaultSentence,
  codeOfBody,
  type CodesReply,
  type SaveCodesRequest,
} from '#contract/scales';
import { ChangeLog, revisionOf } from '#server/log';
import { ScaleVersionsRepository } from '#server/period-view';
import { Refusal, Transactions, type Actor, type Queries } from '#server/platform';
import { ScalesRepository } from './scales.repository.js';

/** The district's own list of codes. */
@Injectable()
export class CodesService {
  constructor(
    private readonly transactions: Transactions,
    private readonly scales: ScalesRepository,
    private readonly versions: ScaleVersionsRepository,
    private readonly log: ChangeLog,
  ) {}

  list(): Promise<CodesReply> {
    return this.read(this.transactions.reading);
  }

  /** Puts a list in the place of the one before. A code that grades are posted with can be switched off, not taken out. */
  async save(actor: Actor, { revision, codes: bodies }: SaveCodesRequest): Promise<CodesReply> {
    return this.transactions.run(async (queries) => {
      const before = (await this.versions.codes(queries)).map(bodyOfCode);
      if (revisionOf(before) !== revision) throw new Refusal('set-up-changed', { what: 'codes' });
      const codes = bodies.map(codeOfBody);
      const faults = checkCodes(codes, await this.scales.allLabels(queries));
      if (faults.length > 0) {
        const fields = faults.map((fault) => ({
          field: `codes.${fault.index}.${codeFaultFields[fault.code]}`,
          detail: codeFaultSentence(fault),
        }));
        throw new Refusal('codes-faulty', {}, fields);
      }
      await this.refuseUsed(queries, codes);
      await this.scales.replaceCodes(queries, codes);
      await this.log.record(queries, actor, [{ action: 'save codes', thing: 'codes', before, after: bodies }]);
      return this.read(queries);
    });
  }

  private async refuseUsed(queries: Queries, codes: readonly SpecialCode[]): Promise<void> {
    for (const [name, grades] of await this.scales.gradesByCode(queries)) {
      if (codes.some(({ code }) => code === name)) continue;
      const instead = 'Switch it off instead: what is posted keeps it, and nobody can post it any more.';
      throw new Refusal('in-use', { what: 'The code', name, uses: `${grades} posted grades`, instead });
    }
  }

  private async read(queries: Queries): Promise<CodesReply> {
    const codes = (await this.versions.codes(queries)).map(bodyOfCode);
    const grades = await this.scales.gradesByCode(queries);
    return {
      revision: revisionOf(codes),
      codes: codes.map((code) => ({ ...code, grades: grades.get(code.code) ?? 0 })),
    };
  }
}
