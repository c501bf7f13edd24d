import { Controller, Get, Param, ParseIntPipe } from '@nestjs/common';
import type { SchoolReply, TermLineReply } from '#contract/calendar';
import { Allow, CurrentActor, everyone, type Actor } from '#server/platform';
import { TermLineService } from './term-line.service.js';

@Controller()
export class TermLineController {
  constructor(private readonly termLines: TermLineService) {}

  @Get('schools')
  @Allow(everyone)
  schools(): Promise<SchoolReply[]> {
    return this.termLines.schools();
  }

  @Get('schools/:schoolId/term-line')
  @Allow(everyone)
  termLine(@CurrentActor() actor: Actor, @Param('schoolId', ParseIntPipe) schoolId: number): Promise<TermLineReply> {
    return this.termLines.ofSchoolOrThrow(actor, schoolId);
  }
}
