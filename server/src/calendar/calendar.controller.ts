import { Body, Controller, Get, Param, ParseIntPipe, Post, Put } from '@nestjs/common';
import { CopyYearsRequest, SaveCalendarRequest, type CalendarReply } from '#contract/calendar';
import { Allow, CurrentActor, registrars, type Actor } from '#server/platform';
import { CalendarService } from './calendar.service.js';

@Controller()
@Allow(registrars)
export class CalendarController {
  constructor(private readonly calendar: CalendarService) {}

  @Get('calendars')
  all(): Promise<CalendarReply[]> {
    return this.calendar.all();
  }

  @Put('schools/:schoolId/calendar')
  save(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Body() request: SaveCalendarRequest,
  ): Promise<CalendarReply> {
    return this.calendar.save(actor, schoolId, request);
  }

  @Post('calendars/copy-years')
  copyYears(@CurrentActor() actor: Actor, @Body() { years }: CopyYearsRequest): Promise<CalendarReply[]> {
    return this.calendar.copyYears(actor, years);
  }
}
