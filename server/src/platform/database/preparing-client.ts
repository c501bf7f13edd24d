import pg from 'pg';

/** What is asked this often is prepared: PostgreSQL then plans it a few times more, and from then on no longer. */
const timesBefore = 10;
/** Each prepared statement keeps its plan in memory, on each connection. */
const mostPrepared = 300;
const mostCounted = 5000;

/**
 * What is prepared is planned once: for itself PostgreSQL plans a statement with an array anew each time, as it takes the plan
 * for any array to be worse. For the rows of one section the planning took three times as long as the reading.
 */
export const planOnce = 'plan_cache_mode=force_generic_plan';

/** Names for statements that are asked again and again; a name never stands for two texts. */
export class StatementNames {
  private readonly names = new Map<string, string>();
  private readonly times = new Map<string, number>();

  /** The name of a statement that is asked once more; undefined while it is seldom, or where there are enough. */
  of(text: string): string | undefined {
    const { names, times } = this;
    const known = names.get(text);
    if (known || names.size >= mostPrepared) return known;
    const now = (times.get(text) ?? 0) + 1;
    if (now < timesBefore) {
      if (times.size >= mostCounted) times.clear();
      times.set(text, now);
      return undefined;
    }
    times.delete(text);
    const name = `often_${names.size + 1}`;
    names.set(text, name);
    return name;
  }
}

/** The same on every connection of the process. */
const statements = new StatementNames();

/**
 * Prepares the statements that are asked again and again: planning the statements of a save takes longer than running
 * them. Only those with parameters apart from their text are looked at; copying and cursors pass through.
 */
export class PreparingClient extends pg.Client {
  // What a query takes and gives has eight forms in pg; whatever comes is handed on as it is but for the name.
  override query(...given: unknown[]): never {
    const [config, values] = given;
    const name = isStatement(config) && Array.isArray(values) ? statements.of(config.text) : undefined;
    const asked = name ? [{ ...(config as object), name }, ...given.slice(1)] : given;
    return Reflect.apply(super.query, this, asked) as never;
  }
}

function isStatement(config: unknown): config is { readonly text: string } {
  return typeof config === 'object' && config !== null && 'text' in config && !('submit' in config);
}
