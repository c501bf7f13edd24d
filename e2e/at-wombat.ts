import { afterAll, beforeAll } from 'vitest';
import { openChromium } from '../scripts/chromium.mjs';
import { atDesk, type Desk } from './desk.js';
import { startDemo, type Wombat } from './wombats.js';

type Browser = Awaited<ReturnType<typeof openChromium>>;

/** Somebody at a browser of their own. */
export interface Seat extends Desk {
  readonly browser: Browser;
}

/** A Wombat and the people who use it, once the stories of a file begin. */
export interface Place<Started extends Wombat> {
  /** The one that runs now; what starts another in its place puts it here. */
  wombat: Started;
  readonly seats: readonly Seat[];
}

/** Starts a Wombat and opens a browser for each of some people before the stories of a file, and closes all of it after them. */
export function atWombat<Started extends Wombat>(people: number, start: () => Promise<Started>): Place<Started> {
  const seats = Array.from({ length: people }, () => ({}) as { -readonly [Key in keyof Seat]: Seat[Key] });
  let current: Started | undefined;
  const place: Place<Started> = {
    seats,
    get wombat() {
      if (!current) throw new Error('Wombat starts with the first story, not before');
      return current;
    },
    set wombat(next) {
      current = next;
    },
  };
  beforeAll(async () => {
    const opening = seats.map(() => openChromium());
    place.wombat = await start();
    for (const [at, browser] of (await Promise.all(opening)).entries())
      Object.assign(
        seats[at]!,
        atDesk(browser.driver, () => place.wombat.address),
        { browser },
      );
  });
  afterAll(async () => {
    for (const { browser } of seats) await browser?.close();
    await current?.stop();
  });
  return place;
}

/** At the demo district: one person, who has not signed in. */
export function atDemo(): { readonly desk: Seat; readonly place: Place<Wombat> } {
  const place = atWombat(1, startDemo);
  return { desk: place.seats[0]!, place };
}

/** At the demo district, signed in as its registrar. */
export function registrarAtDemo(): Seat {
  const { desk } = atDemo();
  beforeAll(() => signInAsRegistrar(desk));
  return desk;
}

/** At the demo district: two people, who have not signed in. */
export function twoAtDemo(): readonly [Seat, Seat] {
  return atWombat(2, startDemo).seats as [Seat, Seat];
}

export async function signInAsRegistrar(desk: Desk): Promise<void> {
  await desk.open('/');
  await desk.click('Morwenna Oake');
  await desk.reads(/sections are complete/);
}
