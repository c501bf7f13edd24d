import { sql, type SQL } from 'drizzle-orm';

/** Texts to be looked for (`x IN ${textList(texts)}`), as one parameter however many there are. */
export function textList(values: readonly string[]): SQL {
  return sql`(SELECT jsonb_array_elements_text(${JSON.stringify(values)}::jsonb))`;
}
