import { Module } from '@nestjs/common';
import { PeriodViewModule } from '#server/period-view';
import { FoundFindingsRepository } from './found-findings.repository.js';
import { SearchController } from './search.controller.js';
import { SearchIndexes } from './search-indexes.js';
import { SearchService } from './search.service.js';

@Module({
  imports: [PeriodViewModule],
  controllers: [SearchController],
  providers: [FoundFindingsRepository, SearchIndexes, SearchService],
})
export class SearchModule {}
