import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Accounts, sites, campaigns with their revisions and versions, and what visitors' pages send. */
export class Foundation1764000000001 implements MigrationInterface {
  readonly name = 'Foundation1764000000001';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE workspace (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        name text NOT NULL,
        created_at timestamptz NOT NULL DEFAULT now()
      );
      CREATE TABLE account (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        email text NOT NULL,
        name text NOT NULL,
        password_hash text NOT NULL,
        created_at timestamptz NOT NULL DEFAULT now(),
        CONSTRAINT account_email UNIQUE (email)
      );
      CREATE TABLE membership (
        workspace_id uuid NOT NULL REFERENCES workspace ON DELETE CASCADE,
        account_id uuid NOT NULL REFERENCES account ON DELETE CASCADE,
        role text NOT NULL CHECK (role IN ('owner', 'editor', 'viewer')),
        created_at timestamptz NOT NULL DEFAULT now(),
        PRIMARY KEY (workspace_id, account_id)
      );
      CREATE TABLE login_session (
        id text PRIMARY KEY,
        data jsonb NOT NULL,
        expires_at timestamptz NOT NULL
      );
      CREATE INDEX login_session_expiry ON login_session (expires_at);

      CREATE TABLE site (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        workspace_id uuid NOT NULL REFERENCES workspace ON DELETE CASCADE,
        key text NOT NULL CHECK (key ~ '^[a-z0-9]{12}$'),
        name text NOT NULL,
        origins text[] NOT NULL,
        time_zone text NOT NULL,
        settings jsonb NOT NULL,
        last_seen_at timestamptz,
        created_at timestamptz NOT NULL DEFAULT now(),
        CONSTRAINT site_key UNIQUE (key),
        CONSTRAINT site_of_workspace UNIQUE (id, workspace_id)
      );
      CREATE TABLE site_page (
        site_id uuid NOT NULL REFERENCES site ON DELETE CASCADE,
        path text NOT NULL,
        title text NOT NULL,
        kind text,
        PRIMARY KEY (site_id, path)
      );

      CREATE TABLE campaign (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        workspace_id uuid NOT NULL,
        site_id uuid NOT NULL,
        name text NOT NULL,
        state text NOT NULL CHECK (state IN ('draft', 'running', 'resting', 'archived')),
        state_before_archive text,
        draft jsonb NOT NULL,
        revision integer NOT NULL DEFAULT 0,
        live_version integer,
        published_revision integer,
        created_at timestamptz NOT NULL DEFAULT now(),
        updated_at timestamptz NOT NULL DEFAULT now(),
        CONSTRAINT campaign_site FOREIGN KEY (site_id, workspace_id) REFERENCES site (id, workspace_id) ON DELETE CASCADE
      );
      CREATE INDEX campaign_by_site ON campaign (site_id, created_at);
      CREATE TABLE campaign_revision (
        campaign_id uuid NOT NULL REFERENCES campaign ON DELETE CASCADE,
        revision integer NOT NULL,
        draft jsonb NOT NULL,
        saved_by uuid REFERENCES account ON DELETE SET NULL,
        saved_at timestamptz NOT NULL DEFAULT now(),
        PRIMARY KEY (campaign_id, revision)
      );
      CREATE TABLE campaign_version (
        campaign_id uuid NOT NULL REFERENCES campaign ON DELETE CASCADE,
        version integer NOT NULL,
        document jsonb NOT NULL,
        message_hash text NOT NULL,
        published_by uuid REFERENCES account ON DELETE SET NULL,
        published_at timestamptz NOT NULL DEFAULT now(),
        PRIMARY KEY (campaign_id, version)
      );
      CREATE TABLE message_file (
        site_id uuid NOT NULL REFERENCES site ON DELETE CASCADE,
        hash text NOT NULL,
        body text NOT NULL,
        PRIMARY KEY (site_id, hash)
      );
      CREATE TABLE site_manifest (
        site_id uuid PRIMARY KEY REFERENCES site ON DELETE CASCADE,
        etag text NOT NULL,
        body text NOT NULL,
        built_at timestamptz NOT NULL DEFAULT now()
      );

      CREATE TABLE event (
        id uuid NOT NULL,
        at timestamptz NOT NULL,
        site_id uuid NOT NULL,
        kind text NOT NULL,
        visitor uuid NOT NULL,
        session uuid NOT NULL,
        page text NOT NULL,
        device text NOT NULL,
        campaign_id uuid,
        version integer,
        closed_by text,
        PRIMARY KEY (id, at)
      ) PARTITION BY RANGE (at);
      CREATE INDEX event_of_campaign ON event (campaign_id, at) WHERE campaign_id IS NOT NULL;
      CREATE TABLE campaign_visitor (
        campaign_id uuid NOT NULL REFERENCES campaign ON DELETE CASCADE,
        kind text NOT NULL,
        visitor uuid NOT NULL,
        first_at timestamptz NOT NULL,
        PRIMARY KEY (campaign_id, kind, visitor)
      );
      CREATE TABLE campaign_hour (
        campaign_id uuid NOT NULL REFERENCES campaign ON DELETE CASCADE,
        hour timestamptz NOT NULL,
        kind text NOT NULL,
        events bigint NOT NULL,
        first_visitors bigint NOT NULL,
        PRIMARY KEY (campaign_id, hour, kind)
      );
      CREATE TABLE lead (
        id uuid PRIMARY KEY,
        workspace_id uuid NOT NULL,
        site_id uuid NOT NULL,
        campaign_id uuid NOT NULL REFERENCES campaign ON DELETE CASCADE,
        version integer NOT NULL,
        visitor uuid NOT NULL,
        fields jsonb NOT NULL,
        consent_text text,
        consented_at timestamptz,
        page text NOT NULL,
        submitted_at timestamptz NOT NULL,
        FOREIGN KEY (site_id, workspace_id) REFERENCES site (id, workspace_id) ON DELETE CASCADE
      );
      CREATE INDEX lead_by_site ON lead (site_id, submitted_at DESC);
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP TABLE lead, campaign_hour, campaign_visitor, event, site_manifest, message_file, campaign_version,
        campaign_revision, campaign, site_page, site, login_session, membership, account, workspace;
    `);
  }
}
