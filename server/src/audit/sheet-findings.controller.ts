import { Controller, Get, ParseIntPipe, Query } from '@nestjs/common';
import type { SheetFindingCountReply, SheetFindingsReply } from '#contract/audit';
import { CurrentActor, May, type Actor } from '#server/platform';
import { SheetFindingsService } from './sheet-findings.service.js';

/** What an audit found, for those whose sheets it is about. */
@Controller('sheet-findings')
export class SheetFindingsController {
  constructor(private readonly findings: SheetFindingsService) {}

  @Get()
  @May('read-grades', { section: 'query.section' })
  ofSection(
    @Query('section', ParseIntPipe) sectionId: number,
    @Query('period', ParseIntPipe) periodId: number,
  ): Promise<SheetFindingsReply> {
    return this.findings.ofSection(sectionId, periodId);
  }

  /** Of the sheets of a period that the person may open. */
  @Get('counts')
  @May('read-grades')
  counts(
    @CurrentActor() actor: Actor,
    @Query('period', ParseIntPipe) periodId: number,
  ): Promise<SheetFindingCountReply[]> {
    return this.findings.counts(actor, periodId);
  }
}
