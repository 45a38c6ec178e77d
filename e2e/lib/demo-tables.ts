import type pg from 'pg';

/** Tables a test may change, children after their parents; sign-in sessions outlive a test. */
const TABLES = [
  'workspace',
  'account',
  'membership',
  'site',
  'site_page',
  'page_reading',
  'page_group',
  'page_day',
  'page_title',
  'manifest_day',
  'letters',
  'letter_file',
  'page_sight',
  'season_note',
  'season_address',
  'stay_day',
  'look',
  'picture',
  'picture_file',
  'saved_block',
  'own_template',
  'campaign',
  'campaign_revision',
  'campaign_version',
  'campaign_message',
  'message_file',
  'site_manifest',
  'reach_day',
  'last_day',
  'met_day',
  'opened_day',
  'closed_day',
  'shared_way',
  'campaign_day',
  'campaign_hour',
  'robot_day',
  'campaign_move',
  'planned_launch',
  'experiment',
  'goal',
  'goal_reached',
  'rehearsal',
  'held_cast',
  'person',
  'lead',
  'lead_before',
  'attachment',
  'do_not_write',
  'people_note',
  'follow_up',
  'connection',
  'sending',
  'invitation',
  'access_token',
  'delivery',
  'delivery_try',
  'presence',
  'why_code',
  'why_report',
  'week_mail',
] as const;
/** Tables to which rows are only added, by keys nobody gives twice: what a test added is taken away again. */
const GROWING = {
  event: ['id', 'at'],
  late_event: ['id'],
  visit: ['site_id', 'session'],
  page_stay: ['site_id', 'view'],
} as const;

/** Large tables whose rows a test may change: only what it changed is put back. */
const CHANGING = {
  visitor_day: ['campaign_id', 'kind', 'visitor', 'day'],
  touched_day: ['campaign_id', 'kind', 'day', 'visitor', 'part', 'variant'],
} as const;

const ALL = [...TABLES, ...Object.keys({ ...GROWING, ...CHANGING })];

/** SQLSTATE of a statement that was given up so that another could go on. */
const DEADLOCK = '40P01';

/**
 * Keeps the demo as it was seeded beside what tests make of it, and notes which tables they touch: most touch few of them.
 * The client is the cluster's superuser: restoring need not check what was right when it was copied.
 */
export async function keepPristine(client: pg.Client): Promise<() => Promise<void>> {
  await client.query(`
    CREATE SCHEMA pristine;
    CREATE UNLOGGED TABLE pristine.touched (name text);
    CREATE FUNCTION pristine.touch() RETURNS trigger LANGUAGE plpgsql SECURITY DEFINER AS
      'BEGIN INSERT INTO pristine.touched VALUES (TG_TABLE_NAME); RETURN NULL; END';
    -- Neither triggers nor foreign keys hold for what is put back.
    SET session_replication_role = 'replica'`);
  for (const table of ALL)
    await client.query(`
      CREATE TABLE pristine.${table} AS TABLE public.${table};
      CREATE TRIGGER touched AFTER INSERT OR UPDATE OR DELETE OR TRUNCATE ON public.${table}
        FOR EACH STATEMENT EXECUTE FUNCTION pristine.touch();
      -- What a test changes by this very client is put back too.
      ALTER TABLE public.${table} ENABLE ALWAYS TRIGGER touched`);
  for (const [table, key] of Object.entries(GROWING))
    await client.query(`ALTER TABLE pristine.${table} ADD PRIMARY KEY (${key.join(', ')})`);

  const putBack: (table: string) => string = (table) => {
    if (table in GROWING)
      return `DELETE FROM ${table} WHERE NOT EXISTS (SELECT FROM pristine.${table} AS old
        WHERE ${GROWING[table as keyof typeof GROWING].map((column) => `old.${column} = ${table}.${column}`).join(' AND ')})`;
    if (table in CHANGING) {
      const columns = CHANGING[table as keyof typeof CHANGING].join(', ');
      // Told apart by hashing whole rows: quick without knowing anything of the tables.
      return `DELETE FROM ${table} WHERE (${columns}) IN (
          SELECT ${columns} FROM (SELECT * FROM ${table} EXCEPT SELECT * FROM pristine.${table}) AS other);
        INSERT INTO ${table} SELECT * FROM pristine.${table} EXCEPT SELECT * FROM ${table}`;
    }
    return `DELETE FROM ${table}; INSERT INTO ${table} SELECT * FROM pristine.${table}`;
  };
  const restoreOnce = async (): Promise<void> => {
    // Whoever is writing comes to an end first.
    await client.query(`BEGIN; LOCK TABLE ${ALL.join(', ')} IN EXCLUSIVE MODE`);
    const { rows } = await client.query('DELETE FROM pristine.touched RETURNING name');
    for (const table of new Set(rows.map(({ name }) => name as string))) await client.query(putBack(table));
    // What was put back just now is no test's doing.
    await client.query('DELETE FROM pristine.touched');
    await client.query("SELECT pg_notify('velarium_site_changed', key) FROM site");
    await client.query('COMMIT');
  };
  return async () => {
    // Something that is noted in the background may hold what is wanted here, and want what is held.
    for (;;) {
      try {
        return await restoreOnce();
      } catch (error) {
        await client.query('ROLLBACK');
        if ((error as { code?: string }).code !== DEADLOCK) throw error;
      }
    }
  };
}
