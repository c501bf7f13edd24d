import { Controller, Get, Param, ParseIntPipe } from '@nestjs/common';
import type { SchoolReply, TermLineReply } from '#contract/calendar';
import { CurrentActor, type Actor, May } from '#server/platform';
import { TermLineService } from './term-line.service.js';

@Controller()
export class TermLineController {
  constructor(private readonly termLines: TermLineService) {}

  @Get('schools')
  @May('see-school')
  schools(@CurrentActor() actor: Actor): Promise<SchoolReply[]> {
    return this.termLines.schools(actor);
  }

  @Get('schools/:schoolId/term-line')
  @May('see-school', { school: 'schoolId' })
  termLine(@CurrentActor() actor: Actor, @Param('schoolId', ParseIntPipe) schoolId: number): Promise<TermLineReply> {
    return this.termLines.ofSchoolOrThrow(actor, schoolId);
  }
}
