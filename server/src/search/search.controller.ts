import { Controller, Get, Query } from '@nestjs/common';
import type { SearchHitReply } from '#contract/search';
import { Allow, CurrentActor, everyone, type Actor } from '#server/platform';
import { SearchService } from './search.service.js';

@Controller('search')
export class SearchController {
  constructor(private readonly search: SearchService) {}

  @Get()
  @Allow(everyone)
  find(@CurrentActor() actor: Actor, @Query('text') text = ''): Promise<SearchHitReply[]> {
    return this.search.find(actor, text);
  }
}
