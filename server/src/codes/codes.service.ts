import { Injectable } from '@nestjs/common';
import { bodyOfCode, type CodesReply, type SaveCodesRequest } from '#contract/codes';
import { Changes, revisionOf } from '#server/changes';
import { Transactions, type Actor, type Queries } from '#server/platform';
import { CodesRepository } from './codes.repository.js';

/** The district's own list of codes. */
@Injectable()
export class CodesService {
  constructor(
    private readonly transactions: Transactions,
    private readonly codes: CodesRepository,
    private readonly changes: Changes,
  ) {}

  list(): Promise<CodesReply> {
    return this.transactions.snapshot((queries) => this.read(queries));
  }

  /** Puts a list in the place of the one before. */
  async save(actor: Actor, { revision, codes }: SaveCodesRequest): Promise<CodesReply> {
    return this.transactions.run(async (queries) => {
      const after = codes.map((body) => ({ ...body }));
      const edit = { kind: 'codes', id: 'district', expected: revision, after };
      await this.changes.make(queries, actor, { action: 'save the codes', edits: [edit] });
      return this.read(queries);
    });
  }

  private async read(queries: Queries): Promise<CodesReply> {
    const codes = (await this.codes.all(queries)).map(bodyOfCode);
    const grades = await this.codes.gradesByCode(queries);
    return {
      revision: revisionOf(codes),
      codes: codes.map((code) => ({ ...code, grades: grades.get(code.code) ?? 0 })),
    };
  }
}
