import { Body, Controller, Get, HttpCode, ParseIntPipe, Post, Query } from '@nestjs/common';
import { StartAuditRequest, type AuditReply } from '#contract/audit';
import { Allow, CurrentActor, registrars, type Actor } from '#server/platform';
import { AuditService } from './audit.service.js';

@Controller('audit')
@Allow(registrars)
export class AuditController {
  constructor(private readonly audit: AuditService) {}

  @Get()
  latest(@Query('period', ParseIntPipe) periodId: number): Promise<AuditReply> {
    return this.audit.latest(periodId);
  }

  @Post('runs')
  @HttpCode(200)
  run(@CurrentActor() actor: Actor, @Body() { periodId }: StartAuditRequest): Promise<AuditReply> {
    return this.audit.run(actor, periodId);
  }
}
