import { Injectable, type OnModuleInit } from '@nestjs/common';
import { indexPeople, matchPeople } from '#core/matching';
import type { Queries } from '#server/platform';
import { PlatformsService } from '#server/platforms';
import { MatchesRepository, theirPerson } from './matches.repository.js';

/** Joins the people of a platform as soon as it was read. */
@Injectable()
export class JoinPeopleService implements OnModuleInit {
  constructor(
    private readonly platforms: PlatformsService,
    private readonly matches: MatchesRepository,
  ) {}

  onModuleInit(): void {
    this.platforms.onRead((queries, platformId) => this.joinPeople(queries, platformId));
  }

  /** Whom a number or an address settles is joined; everybody else waits for a decision. */
  private async joinPeople(queries: Queries, platformId: number): Promise<void> {
    const index = indexPeople(await this.matches.students(queries));
    const people = await this.matches.people(queries, platformId);
    const matches = matchPeople(people.map(theirPerson), index);
    const found = people.flatMap(({ id, decision }, at) => {
      const match = matches[at]!;
      const after = { decision: 'joined' as const, target: match.state === 'joined' ? String(match.personId) : null };
      return decision === 'open' && match.state === 'joined' ? [{ id, after }] : [];
    });
    await this.matches.write(queries, 'person', found);
  }
}
