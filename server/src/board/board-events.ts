import {
  Inject,
  Injectable,
  type BeforeApplicationShutdown,
  type MessageEvent,
  type OnApplicationBootstrap,
} from '@nestjs/common';
import {
  defer,
  delayWhen,
  finalize,
  interval,
  map,
  merge,
  Subject,
  takeUntil,
  throttle,
  timer,
  type Observable,
} from 'rxjs';
import { DATABASE, type OpenDatabase } from '#server/platform';

/** By which name the triggers of the tables announce what boards show. */
const channel = 'sheets';
/** A board is told at most so often; the last change of a burst is told too. */
const restMs = 1000;
/** The more boards are open, the longer each rests, and at times of their own: all that they ask together stays bearable. */
const restOfEachMs = 40;
/** So many are told at once. */
const fewBoards = 25;
/** Something is said now and then, so that nothing between here and the browser takes the connection for dead. */
const beatMs = 25_000;
/** A stream ends after so long, and the browser begins another: who it is for is asked anew. */
const longestMs = 10 * 60 * 1000;

/** Tells everybody who looks at a board when to look again, whichever server wrote what changed it. */
@Injectable()
export class BoardEvents implements OnApplicationBootstrap, BeforeApplicationShutdown {
  private readonly changed = new Subject<void>();
  private readonly stopped = new Subject<void>();
  /** Streams that go on. */
  private open = 0;
  private end: () => void = () => undefined;

  constructor(@Inject(DATABASE) private readonly database: OpenDatabase) {}

  onApplicationBootstrap(): void {
    this.end = this.database.announcements.on(channel, () => this.changed.next());
  }

  /** A stream that goes on would keep the server from stopping. */
  beforeApplicationShutdown(): void {
    this.end();
    this.stopped.next();
  }

  stream(): Observable<MessageEvent> {
    const rest = () => Math.max(restMs, this.open * restOfEachMs);
    const changes = this.changed.pipe(
      throttle(() => timer(rest()), { leading: true, trailing: true }),
      delayWhen(() => timer(this.open <= fewBoards ? 0 : Math.random() * rest())),
      map((): MessageEvent => ({ type: 'changed', data: '' })),
    );
    const beats = interval(beatMs).pipe(map((): MessageEvent => ({ type: 'beat', data: '' })));
    return defer(() => {
      this.open++;
      return merge(changes, beats).pipe(takeUntil(this.stopped), takeUntil(timer(longestMs)));
    }).pipe(finalize(() => this.open--));
  }
}
