import type { ExchangeFile, ExchangeRow, ExchangeRows, PlannedExchangeRow } from '#core/exchange';
import type { Queries } from '#server/platform';
import type { ExchangeIds } from './exchange-ids.js';

/** What a zip's rows become, file after file, all inside one transaction. */
export interface Writing {
  readonly queries: Queries;
  readonly ids: ExchangeIds;
  /** All rows of the zip, also those that are the same. */
  readonly files: ExchangeRows;
  readonly today: string;
  readonly of: (file: ExchangeFile, ...outcomes: PlannedExchangeRow['outcome'][]) => readonly ExchangeRow[];
}

/** Rows written with one statement. */
const rowsAtOnce = 5_000;

export async function inPieces(rows: readonly object[], write: (piece: string) => Promise<unknown>): Promise<void> {
  for (let from = 0; from < rows.length; from += rowsAtOnce)
    await write(JSON.stringify(rows.slice(from, from + rowsAtOnce)));
}
