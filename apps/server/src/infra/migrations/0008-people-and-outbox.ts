import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * Who answered, and everything that goes out because of it: people, what follows an answer, the Outbox with its tries,
 * connections to other services, and how mail is sent.
 */
export class PeopleAndOutbox1764000000008 implements MigrationInterface {
  readonly name = 'PeopleAndOutbox1764000000008';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      -- Every answer is searched for words anywhere in it. A trusted extension: the database's owner may make it.
      CREATE EXTENSION IF NOT EXISTS pg_trgm;
      CREATE TABLE person (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        workspace_id uuid NOT NULL,
        site_id uuid NOT NULL,
        address text NOT NULL,
        -- The same address however its domain is written; see readMailAddress.
        address_key text NOT NULL,
        state text NOT NULL CHECK (state IN ('agreed', 'waiting', 'confirmed', 'left')),
        state_at timestamptz NOT NULL DEFAULT now(),
        -- Until when they can confirm.
        confirm_until timestamptz,
        created_at timestamptz NOT NULL DEFAULT now(),
        UNIQUE (site_id, address_key),
        FOREIGN KEY (site_id, workspace_id) REFERENCES site (id, workspace_id) ON DELETE CASCADE
      );
      ALTER TABLE site ADD COLUMN answers_kept_days integer;
      ALTER TABLE lead
        ADD COLUMN person_id uuid REFERENCES person ON DELETE SET NULL,
        ADD COLUMN form text,
        ADD COLUMN variant text,
        ADD COLUMN device text,
        ADD COLUMN session uuid,
        ADD COLUMN held text,
        -- What is counted once a held answer is let through.
        ADD COLUMN held_events jsonb,
        ADD COLUMN search text NOT NULL DEFAULT '';
      UPDATE lead SET search = lower(coalesce(
        (SELECT string_agg(field ->> 'value', ' ') FROM jsonb_array_elements(fields) AS field), ''));
      DROP INDEX lead_by_site;
      CREATE INDEX lead_by_site ON lead (site_id, submitted_at DESC, id DESC) WHERE held IS NULL;
      CREATE INDEX lead_held ON lead (site_id, submitted_at DESC, id DESC) WHERE held IS NOT NULL;
      CREATE INDEX lead_of_person ON lead (person_id, submitted_at DESC);
      CREATE INDEX lead_of_campaign ON lead (campaign_id, submitted_at DESC);
      CREATE INDEX lead_search ON lead USING gin (search gin_trgm_ops);
      CREATE INDEX person_by_state ON person (site_id, state);
      CREATE TABLE lead_before (
        lead_id uuid NOT NULL REFERENCES lead ON DELETE CASCADE,
        at timestamptz NOT NULL DEFAULT now(),
        by_name text NOT NULL,
        fields jsonb NOT NULL
      );
      CREATE INDEX lead_before_of_lead ON lead_before (lead_id, at);
      -- Addresses never to be written to, by what nobody can read them back from.
      CREATE TABLE do_not_write (
        site_id uuid NOT NULL REFERENCES site ON DELETE CASCADE,
        address_hash bytea NOT NULL,
        reason text NOT NULL CHECK (reason IN ('erased', 'list', 'left')),
        at timestamptz NOT NULL DEFAULT now(),
        PRIMARY KEY (site_id, address_hash)
      );
      CREATE TABLE people_note (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        site_id uuid NOT NULL REFERENCES site ON DELETE CASCADE,
        at timestamptz NOT NULL DEFAULT now(),
        by_name text NOT NULL,
        what text NOT NULL,
        count integer NOT NULL,
        mails integer NOT NULL DEFAULT 0
      );
      CREATE INDEX people_note_by_site ON people_note (site_id, at DESC);

      CREATE TABLE follow_up (
        campaign_id uuid NOT NULL REFERENCES campaign ON DELETE CASCADE,
        form text NOT NULL,
        document jsonb NOT NULL,
        updated_at timestamptz NOT NULL DEFAULT now(),
        PRIMARY KEY (campaign_id, form)
      );
      CREATE TABLE connection (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        workspace_id uuid NOT NULL,
        site_id uuid NOT NULL,
        settings jsonb NOT NULL,
        -- Signing secrets and secret headers, sealed.
        sealed text NOT NULL,
        state text NOT NULL DEFAULT 'on' CHECK (state IN ('on', 'resting')),
        words text,
        last_good_at timestamptz,
        failing_since timestamptz,
        created_at timestamptz NOT NULL DEFAULT now(),
        FOREIGN KEY (site_id, workspace_id) REFERENCES site (id, workspace_id) ON DELETE CASCADE
      );
      CREATE INDEX connection_by_site ON connection (site_id, created_at);
      CREATE TABLE sending (
        workspace_id uuid PRIMARY KEY REFERENCES workspace ON DELETE CASCADE,
        settings jsonb NOT NULL,
        sealed text NOT NULL,
        updated_at timestamptz NOT NULL DEFAULT now()
      );

      CREATE TABLE invitation (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        workspace_id uuid NOT NULL REFERENCES workspace ON DELETE CASCADE,
        email text NOT NULL,
        name text NOT NULL,
        role text NOT NULL,
        invited_by text NOT NULL,
        created_at timestamptz NOT NULL DEFAULT now(),
        ends_at timestamptz NOT NULL,
        UNIQUE (workspace_id, email)
      );
      CREATE TABLE access_token (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        workspace_id uuid NOT NULL REFERENCES workspace ON DELETE CASCADE,
        site_id uuid REFERENCES site ON DELETE CASCADE,
        name text NOT NULL,
        -- SHA-256 of the key: a copy of the table opens nothing.
        hash bytea NOT NULL UNIQUE,
        created_by text NOT NULL,
        created_at timestamptz NOT NULL DEFAULT now(),
        last_used_at timestamptz
      );
      CREATE INDEX login_session_of ON login_session ((data ->> 'accountId'));

      CREATE TABLE delivery (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        workspace_id uuid NOT NULL REFERENCES workspace ON DELETE CASCADE,
        site_id uuid REFERENCES site ON DELETE CASCADE,
        kind text NOT NULL,
        -- What goes the same way waits in the same lane; lanes never wait for each other.
        lane text NOT NULL,
        state text NOT NULL CHECK (state IN ('waiting', 'retrying', 'sent', 'givenUp', 'held', 'stopped')),
        recipient text NOT NULL,
        person_id uuid REFERENCES person ON DELETE SET NULL,
        lead_id uuid REFERENCES lead ON DELETE SET NULL,
        connection_id uuid REFERENCES connection ON DELETE CASCADE,
        payload jsonb NOT NULL,
        -- Of two for the same cause one is written down.
        once text UNIQUE,
        created_at timestamptz NOT NULL DEFAULT now(),
        due_at timestamptz NOT NULL DEFAULT now(),
        -- When its tries began; given up three days after.
        begun_at timestamptz,
        tries integer NOT NULL DEFAULT 0,
        words text,
        sent text,
        sent_at timestamptz
      );
      CREATE INDEX delivery_due ON delivery (lane, due_at) WHERE state IN ('waiting', 'retrying');
      CREATE INDEX delivery_by_site ON delivery (site_id, created_at DESC, id DESC);
      CREATE INDEX delivery_open ON delivery (site_id, state) WHERE state <> 'sent';
      CREATE INDEX delivery_of_person ON delivery (person_id, created_at DESC) WHERE person_id IS NOT NULL;
      CREATE INDEX delivery_of_lead ON delivery (lead_id) WHERE lead_id IS NOT NULL;
      CREATE INDEX delivery_of_connection ON delivery (connection_id, created_at DESC) WHERE connection_id IS NOT NULL;
      CREATE TABLE delivery_try (
        delivery_id uuid NOT NULL REFERENCES delivery ON DELETE CASCADE,
        at timestamptz NOT NULL DEFAULT now(),
        connection_id uuid,
        milliseconds integer NOT NULL,
        is_good boolean NOT NULL,
        status integer,
        words text NOT NULL,
        answer text NOT NULL
      );
      CREATE INDEX delivery_try_of ON delivery_try (delivery_id, at);
      CREATE INDEX delivery_try_by_connection ON delivery_try (connection_id, at) WHERE connection_id IS NOT NULL;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP TABLE delivery_try, delivery, access_token, invitation, sending, connection, follow_up, people_note, do_not_write, lead_before;
      DROP INDEX login_session_of, lead_by_site, lead_held, lead_of_person, lead_of_campaign, lead_search;
      ALTER TABLE lead DROP COLUMN person_id, DROP COLUMN form, DROP COLUMN variant, DROP COLUMN device,
        DROP COLUMN session, DROP COLUMN held, DROP COLUMN held_events, DROP COLUMN search;
      CREATE INDEX lead_by_site ON lead (site_id, submitted_at DESC);
      ALTER TABLE site DROP COLUMN answers_kept_days;
      DROP TABLE person;
    `);
  }
}
