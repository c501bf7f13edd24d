import { Injectable } from '@nestjs/common';
import { plainGpaPolicy } from '#core/transcripts';
import { bodyOfGpaPolicy, type GpaPolicyBody } from '#contract/transcripts';
import { Settings, type Queries } from '#server/platform';

const key = 'gpa';

/** How grade point averages are made in the district: as somebody settled it, else plainly. */
@Injectable()
export class GpaPolicyRepository {
  constructor(private readonly settings: Settings) {}

  /** What was settled before a choice came to be has the plain one for it. */
  async read(queries: Queries): Promise<GpaPolicyBody> {
    const settled = (await this.settings.value(queries, key)) as Partial<GpaPolicyBody> | undefined;
    return { ...bodyOfGpaPolicy(plainGpaPolicy), ...settled };
  }

  async write(queries: Queries, policy: GpaPolicyBody): Promise<void> {
    await this.settings.put(queries, key, policy);
  }
}
