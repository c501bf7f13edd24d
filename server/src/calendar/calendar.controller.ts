import { Body, Controller, Get, Param, ParseIntPipe, Post, Put } from '@nestjs/common';
import { CopyYearsRequest, SaveCalendarRequest, type CalendarReply } from '#contract/calendar';
import { CurrentActor, type Actor, May } from '#server/platform';
import { CalendarService } from './calendar.service.js';

@Controller()
export class CalendarController {
  constructor(private readonly calendar: CalendarService) {}

  @Get('calendars')
  @May('read-set-up')
  all(@CurrentActor() actor: Actor): Promise<CalendarReply[]> {
    return this.calendar.all(actor);
  }

  @Put('schools/:schoolId/calendar')
  @May('change-set-up', { school: 'schoolId' })
  save(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Body() request: SaveCalendarRequest,
  ): Promise<CalendarReply> {
    return this.calendar.save(actor, schoolId, request);
  }

  @Post('calendars/copy-years')
  @May('change-set-up')
  copyYears(@CurrentActor() actor: Actor, @Body() { years }: CopyYearsRequest): Promise<CalendarReply[]> {
    return this.calendar.copyYears(actor, years);
  }
}
