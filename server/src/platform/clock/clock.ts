import { Injectable } from '@nestjs/common';

/** The only place that asks what time it is. The demo's clock is set back to a day in its school year and runs on. */
@Injectable()
export class Clock {
  private offsetMs = 0;

  now(): Date {
    return new Date(Date.now() + this.offsetMs);
  }

  /** Makes it `instant` now. */
  setTo(instant: Date): void {
    this.offsetMs = instant.getTime() - Date.now();
  }

  runWithOffset(milliseconds: number): void {
    this.offsetMs = milliseconds;
  }

  get offset(): number {
    return this.offsetMs;
  }
}
