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
  'shared_way',
  'campaign_day',
  'robot_day',
  'campaign_move',
  'planned_launch',
  'experiment',
  'goal',
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
/** Large tables: of these only the rows that a test touched are put back. */
const LARGE = [
  'event',
  'late_event',
  'visit',
  'page_stay',
  'stay_day',
  'goal_reached',
  'visitor_day',
  'touched_day',
  'opened_day',
  'closed_day',
  'campaign_hour',
] as const;
/** Its partitions may go: what is gone of it stays gone, and no test asks for it again. */
const ONLY_ADDED_TO = 'event';

const ALL = [...TABLES, ...LARGE];

/** SQLSTATE of a statement that was given up so that another could go on. */
const DEADLOCK = '40P01';

/** The columns by which a row of a table is known. */
async function keyOf(client: pg.Client, table: string): Promise<readonly string[]> {
  const { rows } = await client.query(
    `SELECT attname FROM pg_index JOIN pg_attribute ON attrelid = indrelid AND attnum = ANY(indkey)
      WHERE indrelid = $1::regclass AND indisprimary`,
    [`public.${table}`],
  );
  return rows.map(({ attname }) => attname as string);
}

/** Notes each row of a table that is touched, by its key, beside the rows as they were. */
async function watchRows(client: pg.Client, table: string, key: readonly string[]): Promise<void> {
  const of = (row: string) => key.map((column) => `${row}.${column}`).join(', ');
  await client.query(`
    ALTER TABLE pristine.${table} ADD PRIMARY KEY (${key.join(', ')});
    CREATE UNLOGGED TABLE pristine.${table}_touched AS SELECT ${key.join(', ')} FROM public.${table} WITH NO DATA;
    CREATE FUNCTION pristine.touch_${table}() RETURNS trigger LANGUAGE plpgsql SECURITY DEFINER AS $$ BEGIN
      IF TG_OP <> 'INSERT' THEN INSERT INTO pristine.${table}_touched SELECT ${of('OLD')}; END IF;
      IF TG_OP <> 'DELETE' THEN INSERT INTO pristine.${table}_touched SELECT ${of('NEW')}; END IF;
      RETURN NULL;
    END $$;
    CREATE TRIGGER touched_row AFTER INSERT OR UPDATE OR DELETE ON public.${table}
      FOR EACH ROW EXECUTE FUNCTION pristine.touch_${table}();
    ALTER TABLE public.${table} ENABLE ALWAYS TRIGGER touched_row`);
}

function putRowsBack(table: string, key: readonly string[]): string {
  const columns = key.join(', ');
  const is = (one: string, other: string) =>
    key.map((column) => `${one}.${column} = ${other}.${column}`).join(' AND ');
  const touched = `(SELECT DISTINCT ${columns} FROM pristine.${table}_touched) AS touched`;
  const wasThere = `EXISTS (SELECT FROM pristine.${table} AS old WHERE ${is('old', 'touched')})`;
  return table === ONLY_ADDED_TO
    ? `DELETE FROM ${table} USING ${touched} WHERE ${is(table, 'touched')} AND NOT ${wasThere}`
    : `DELETE FROM ${table} USING ${touched} WHERE ${is(table, 'touched')};
       INSERT INTO ${table} SELECT old.* FROM pristine.${table} AS old JOIN ${touched} USING (${columns})`;
}

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
  const putBack = new Map<string, string>(
    TABLES.map((table) => [
      table,
      `DELETE FROM ${table}; INSERT INTO ${table} SELECT * FROM pristine.${table}`,
    ]),
  );
  for (const table of LARGE) {
    const key = await keyOf(client, table);
    await watchRows(client, table, key);
    putBack.set(table, putRowsBack(table, key));
  }
  const restoreOnce = async (): Promise<void> => {
    // Whoever is writing comes to an end first.
    await client.query(`BEGIN; LOCK TABLE ${ALL.join(', ')} IN EXCLUSIVE MODE`);
    const { rows } = await client.query('DELETE FROM pristine.touched RETURNING name');
    for (const table of new Set(rows.map(({ name }) => name as string)))
      await client.query(putBack.get(table) ?? '');
    // What was put back just now is no test's doing.
    await client.query(
      ['touched', ...LARGE.map((table) => `${table}_touched`)]
        .map((name) => `DELETE FROM pristine.${name}`)
        .join(';'),
    );
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
