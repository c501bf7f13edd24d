import pg from 'pg';

/** What the database announces (`NOTIFY`) as soon as it is committed: by its channel, whoever wrote it on whichever server. */
export interface Announcements {
  /** Listens until the answer is called. Where some may have been missed, the listener is called too. */
  on(channel: string, listener: () => void): () => void;
  close(): Promise<void>;
}

const retryMs = 2000;

class Listeners {
  private readonly byChannel = new Map<string, Set<() => void>>();

  add(channel: string, listener: () => void): () => void {
    const own = this.byChannel.get(channel) ?? new Set();
    this.byChannel.set(channel, own.add(listener));
    return () => own.delete(listener);
  }

  get channels(): string[] {
    return [...this.byChannel.keys()];
  }

  tell(channel: string): void {
    for (const listener of this.byChannel.get(channel) ?? []) listener();
  }

  tellAll(): void {
    for (const channel of this.channels) this.tell(channel);
  }
}

/** All connections of the embedded database are one session: whichever commits hears of it. */
export function announcementsOfPool(pool: pg.Pool): Announcements {
  const listeners = new Listeners();
  pool.on('connect', (client) => client.on('notification', ({ channel }) => listeners.tell(channel)));
  return {
    on(channel, listener) {
      const end = listeners.add(channel, listener);
      void pool.query(`LISTEN ${pg.escapeIdentifier(channel)}`).catch(() => undefined); // the pool is closing
      return end;
    },
    async close() {},
  };
}

/** A connection of its own, which is made again whenever it breaks. */
export function announcementsOfServer(url: string): Announcements {
  const listeners = new Listeners();
  let client: pg.Client | null = null;
  let isClosed = false;
  let retry: NodeJS.Timeout | undefined;
  const listenTo = async (own: pg.Client, channel: string) => own.query(`LISTEN ${pg.escapeIdentifier(channel)}`);
  const connect = async () => {
    const own = new pg.Client({ connectionString: url });
    client = own;
    own.on('notification', ({ channel }) => listeners.tell(channel));
    const again = () => {
      if (client !== own) return;
      client = null;
      void own.end().catch(() => undefined); // it is broken already
      if (!isClosed) retry = setTimeout(() => void connect(), retryMs).unref();
    };
    own.on('error', again);
    own.on('end', again);
    try {
      await own.connect();
      for (const channel of listeners.channels) await listenTo(own, channel);
      listeners.tellAll(); // what was announced meanwhile was not heard
    } catch {
      again();
    }
  };
  return {
    on(channel, listener) {
      const isNew = !listeners.channels.includes(channel);
      const end = listeners.add(channel, listener);
      if (!client && !isClosed && !retry) void connect();
      else if (isNew && client) void listenTo(client, channel).catch(() => undefined); // it is made again with all of them
      return end;
    },
    async close() {
      isClosed = true;
      clearTimeout(retry);
      const own = client;
      client = null;
      await own?.end();
    },
  };
}
