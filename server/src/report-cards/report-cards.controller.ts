import { Controller, Get, Param, ParseIntPipe, Query } from '@nestjs/common';
import { ReportCardQuery, type ReportCardReply } from '#contract/report-cards';
import { CurrentActor, May, type Actor } from '#server/platform';
import { ReportCardService } from './report-card.service.js';

@Controller('report-cards')
export class ReportCardsController {
  constructor(private readonly cards: ReportCardService) {}

  @Get(':studentId')
  @May('read-transcripts', { person: 'studentId', period: 'query.period' })
  ofStudent(
    @CurrentActor() actor: Actor,
    @Param('studentId', ParseIntPipe) studentId: number,
    @Query() { period, when }: ReportCardQuery,
  ): Promise<ReportCardReply> {
    return this.cards.readBy(actor, studentId, period, when ?? 'now');
  }
}
