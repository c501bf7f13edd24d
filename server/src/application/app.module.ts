import { Module, type DynamicModule } from '@nestjs/common';
import { APP_FILTER, APP_GUARD, APP_PIPE } from '@nestjs/core';
import { AuditModule } from '#server/audit';
import { CalculationModule } from '#server/calculation';
import { CalendarModule } from '#server/calendar';
import { CodesModule } from '#server/codes';
import { FilesModule } from '#server/files';
import { PlatformsModule } from '#server/platforms';
import { RunsModule } from '#server/runs';
import { TermLineModule } from '#server/term-line';
import { CoursesModule } from '#server/courses';
import { ExchangeModule } from '#server/exchange';
import { ChangesModule } from '#server/changes';
import { MailModule } from '#server/mail';
import { MatchingModule } from '#server/matching';
import { PeopleModule } from '#server/people';
import { SectionsModule } from '#server/sections';
import {
  AccessGuard,
  createValidationPipe,
  StorablePipe,
  PlatformModule,
  ProblemFilter,
  type Clock,
  type OpenDatabase,
} from '#server/platform';
import { BoardModule } from '#server/board';
import { ReportCardsModule } from '#server/report-cards';
import { AttendanceModule } from '#server/attendance';
import { PostingModule } from '#server/posting';
import { ReportItemsModule } from '#server/report-items';
import { ScalesModule } from '#server/scales';
import { SchoolsModule } from '#server/schools';
import { SearchModule } from '#server/search';
import { SetUpModule } from '#server/set-up';
import { TranscriptsModule } from '#server/transcripts';

@Module({})
export class AppModule {
  static on(database: OpenDatabase, clock: Clock): DynamicModule {
    return {
      module: AppModule,
      imports: [
        PlatformModule.on(database, clock),
        AuditModule,
        CalculationModule,
        CalendarModule,
        CoursesModule,
        ExchangeModule,
        ChangesModule,
        MailModule,
        MatchingModule,
        PeopleModule,
        SectionsModule,
        AttendanceModule,
        BoardModule,
        ReportCardsModule,
        PostingModule,
        ReportItemsModule,
        ScalesModule,
        SchoolsModule,
        SearchModule,
        SetUpModule,
        TranscriptsModule,
        CodesModule,
        FilesModule,
        PlatformsModule,
        RunsModule,
        TermLineModule,
      ],
      providers: [
        { provide: APP_GUARD, useClass: AccessGuard },
        { provide: APP_PIPE, useClass: StorablePipe },
        { provide: APP_PIPE, useFactory: createValidationPipe },
        { provide: APP_FILTER, useClass: ProblemFilter },
      ],
    };
  }
}
