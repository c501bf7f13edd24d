import { Body, Controller, Get, HttpCode, ParseIntPipe, Post, Query } from '@nestjs/common';
import { StartAuditRequest, type AuditReply } from '#contract/audit';
import { CurrentActor, type Actor, May } from '#server/platform';
import { AuditService } from './audit.service.js';

@Controller('audit')
export class AuditController {
  constructor(private readonly audit: AuditService) {}

  @Get()
  @May('read-findings', { period: 'query.period' })
  latest(@Query('period', ParseIntPipe) periodId: number): Promise<AuditReply> {
    return this.audit.latest(periodId);
  }

  @Post('runs')
  @May('audit', { period: 'body.periodId' })
  @HttpCode(200)
  run(@CurrentActor() actor: Actor, @Body() { periodId }: StartAuditRequest): Promise<AuditReply> {
    return this.audit.run(actor, periodId);
  }
}
