import { sql } from 'drizzle-orm';
import { extension, readScoreScale, readWholeBands, type ExchangeRow, type WholeBand } from '#core/exchange';
import { inPieces, type Writing } from './writing.js';

/** A scale becomes one of the school that it names, else of the district, in force from the first period there is. */
export async function writeScales({ queries, ids, of }: Writing): Promise<void> {
  const created = of('scoreScales', 'new');
  const given = await ids.give(
    'scale',
    created.map(({ sourcedId }) => ({ sourcedId: sourcedId! })),
  );
  const scales = created.map((row, at) => ({
    id: given[at],
    name: row['title'],
    schoolId: ids.of('school', row['orgSourcedId']) ?? null,
    kind: row[extension('scaleKind')] || 'percent',
    highestLevel: row[extension('highestLevel')] || null,
    bands: bandsOf(row).map((band, index) => ({ ...band, position: index + 1 })),
  }));
  await inPieces(scales, (piece) =>
    queries.execute(sql`
    WITH incoming AS (
      SELECT * FROM jsonb_to_recordset(${piece}::jsonb) AS n (id int, name text, "schoolId" int, kind text, "highestLevel" numeric, bands jsonb)
    ), scale AS (
      INSERT INTO scales (id, school_id, name, kind, highest_level)
      SELECT id, "schoolId", name, kind, CASE WHEN kind = 'level' THEN coalesce("highestLevel", 4) END FROM incoming RETURNING id
    ), version AS (
      INSERT INTO scale_versions (scale_id, number, from_period_id)
      SELECT n.id, 1, (SELECT p.id FROM periods p WHERE n."schoolId" IS NULL OR p.school_id = n."schoolId"
        ORDER BY p.starts_on, p.ends_on DESC, p.id LIMIT 1)
      FROM incoming n RETURNING id, scale_id
    )
    INSERT INTO bands (version_id, label, lowest, points, passes, earns_credit, descriptor, position)
    SELECT v.id, b.label, b.lowest, b.points, b.passes, b."earnsCredit", b.descriptor, b.position
    FROM incoming n JOIN version v ON v.scale_id = n.id, jsonb_to_recordset(n.bands)
      AS b (label text, lowest numeric, points numeric, passes boolean, "earnsCredit" boolean, descriptor text, position int)`),
  );
}

/** Ours in full where the zip has them; else labels and lowest values, of which all but the last pass. */
function bandsOf(row: ExchangeRow): WholeBand[] {
  const whole = readWholeBands(row[extension('bands')] ?? '');
  if (whole) return whole;
  const bands = readScoreScale(row['scoreScaleValue'] ?? '') ?? [];
  return bands.map((band, at) => {
    const passes = at < bands.length - 1;
    return { ...band, points: null, passes, earnsCredit: passes, descriptor: '' };
  });
}
