import { Controller, Get, Query } from '@nestjs/common';
import type { SearchHitReply } from '#contract/search';
import { CurrentActor, type Actor, May } from '#server/platform';
import { SearchService } from './search.service.js';

@Controller('search')
export class SearchController {
  constructor(private readonly search: SearchService) {}

  @Get()
  @May('use-own-account')
  find(@CurrentActor() actor: Actor, @Query('text') text = ''): Promise<SearchHitReply[]> {
    return this.search.find(actor, text);
  }
}
