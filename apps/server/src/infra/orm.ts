import { DataSource } from 'typeorm';
import {
  AccountEntity,
  LoginSessionEntity,
  MembershipEntity,
  WorkspaceEntity,
} from '../accounts/entities.ts';
import { CampaignEntity, CampaignRevisionEntity, CampaignVersionEntity } from '../campaigns/entities.ts';
import {
  LookEntity,
  OwnTemplateEntity,
  PictureEntity,
  PictureFileEntity,
  SavedBlockEntity,
} from '../library/entities.ts';
import { LeadEntity } from '../people/entities.ts';
import { MessageFileEntity, SiteManifestEntity } from '../publishing/entities.ts';
import { SiteEntity, SitePageEntity } from '../sites/entities.ts';
import { PageGroupEntity } from '../sites/page-groups.ts';
import { Foundation1764000000001 } from './migrations/0001-foundation.ts';
import { RulesInFull1764000000002 } from './migrations/0002-rules-in-full.ts';
import { MessagesInFull1764000000003 } from './migrations/0003-messages-in-full.ts';
import { StayAndViews1764000000004 } from './migrations/0004-stay-and-views.ts';
import { Visits1764000000005 } from './migrations/0005-visits.ts';
import { NothingTwice1764000000006 } from './migrations/0006-nothing-twice.ts';
import { WherePagesComeFrom1764000000007 } from './migrations/0007-where-pages-come-from.ts';
import { PeopleAndOutbox1764000000008 } from './migrations/0008-people-and-outbox.ts';
import { StepOfAnswer1764000000009 } from './migrations/0009-step-of-answer.ts';
import { Results1764000000010 } from './migrations/0010-results.ts';
import { Experiments1764000000011 } from './migrations/0011-experiments.ts';
import { Goals1764000000012 } from './migrations/0012-goals.ts';
import { Worth1764000000013 } from './migrations/0013-worth.ts';
import { Rehearsals1764000000014 } from './migrations/0014-rehearsals.ts';
import { Notes1764000000015 } from './migrations/0015-notes.ts';
import { History1764000000016 } from './migrations/0016-history.ts';
import { Heard1764000000017 } from './migrations/0017-heard.ts';
import { Season1764000000018 } from './migrations/0018-season.ts';
import { Languages1764000000019 } from './migrations/0019-languages.ts';
import { Why1764000000020 } from './migrations/0020-why.ts';
import { TrialGoals1764000000021 } from './migrations/0021-trial-goals.ts';
import { WeekMails1764000000022 } from './migrations/0022-week-mails.ts';
import { OnMessage1764000000023 } from './migrations/0023-on-message.ts';
import { HeldCasts1764000000024 } from './migrations/0024-held-casts.ts';
import { SecondPerson1764000000025 } from './migrations/0025-second-person.ts';
import { Foreseen1764000000026 } from './migrations/0026-foreseen.ts';
import { SecretsOfAddresses1764000000027 } from './migrations/0027-secrets-of-addresses.ts';
import { Robots1764000000028 } from './migrations/0028-robots.ts';
import { Letters1764000000029 } from './migrations/0029-letters.ts';
import { AskedTogether1764000000030 } from './migrations/0030-asked-together.ts';
import { KeysThatRehearse1764000000031 } from './migrations/0031-keys-that-rehearse.ts';
import { LanguageOfAShowing1764000000032 } from './migrations/0032-language-of-a-showing.ts';
import { ResultsWithoutEvents1764000000033 } from './migrations/0033-results-without-events.ts';
import { CountingAtHand1764000000034 } from './migrations/0034-counting-at-hand.ts';
import { SignedOutAt1764000000035 } from './migrations/0035-signed-out-at.ts';
import { CountedPath1764000000036 } from './migrations/0036-counted-path.ts';
import { DaysAtHand1764000000037 } from './migrations/0037-days-at-hand.ts';
import { noteAsPooled } from './query-prepared.ts';

/** Connections a process holds at most. */
const POOL_SIZE = 12;

/** How long anything of the database is waited for, milliseconds; past it the caller is told to come back. */
const PATIENCE = {
  /** For a connection of the pool, and for a new one to be made. */
  connectionTimeoutMillis: 4000,
  statement_timeout: 15_000,
  lock_timeout: 8000,
  idle_in_transaction_session_timeout: 20_000,
} as const;

/**
 * Statements of ours are many parts over many partitions and take milliseconds; compiling each of them anew takes
 * longer than running it.
 */
const UNCOMPILED = { options: '-c jit=off' } as const;

export interface DataSourceOptions {
  readonly poolSize?: number;
  /** Without time limits on statements and locks: for migrations, which take as long as they take. */
  readonly isPatient?: boolean;
  /** Whether it leads through a pooler; see `queryPrepared`. */
  readonly isPooled?: boolean;
}

/** The database with its migrations; `synchronize` is never used. The caller initialises and destroys it. */
export function createDataSource(
  databaseUrl: string,
  { poolSize = POOL_SIZE, isPatient = false, isPooled = false }: DataSourceOptions = {},
): DataSource {
  const db = new DataSource({
    type: 'postgres',
    url: databaseUrl,
    poolSize,
    applicationName: 'velarium',
    extra: {
      ...UNCOMPILED,
      ...(isPatient ? { connectionTimeoutMillis: PATIENCE.connectionTimeoutMillis } : PATIENCE),
    },
    entities: [
      AccountEntity,
      WorkspaceEntity,
      MembershipEntity,
      LoginSessionEntity,
      SiteEntity,
      SitePageEntity,
      PageGroupEntity,
      CampaignEntity,
      CampaignRevisionEntity,
      CampaignVersionEntity,
      MessageFileEntity,
      SiteManifestEntity,
      LeadEntity,
      LookEntity,
      PictureEntity,
      PictureFileEntity,
      SavedBlockEntity,
      OwnTemplateEntity,
    ],
    migrations: [
      Foundation1764000000001,
      RulesInFull1764000000002,
      MessagesInFull1764000000003,
      StayAndViews1764000000004,
      Visits1764000000005,
      NothingTwice1764000000006,
      WherePagesComeFrom1764000000007,
      PeopleAndOutbox1764000000008,
      StepOfAnswer1764000000009,
      Results1764000000010,
      Experiments1764000000011,
      Goals1764000000012,
      Worth1764000000013,
      Rehearsals1764000000014,
      Notes1764000000015,
      History1764000000016,
      Heard1764000000017,
      Season1764000000018,
      Languages1764000000019,
      Why1764000000020,
      TrialGoals1764000000021,
      WeekMails1764000000022,
      OnMessage1764000000023,
      HeldCasts1764000000024,
      SecondPerson1764000000025,
      Foreseen1764000000026,
      SecretsOfAddresses1764000000027,
      Robots1764000000028,
      Letters1764000000029,
      AskedTogether1764000000030,
      KeysThatRehearse1764000000031,
      LanguageOfAShowing1764000000032,
      ResultsWithoutEvents1764000000033,
      CountingAtHand1764000000034,
      SignedOutAt1764000000035,
      CountedPath1764000000036,
      DaysAtHand1764000000037,
    ],
    migrationsTransactionMode: 'each',
    // A failed query is thrown; writing it down too would put what people sent into the log.
    logging: false,
  });
  if (isPooled) noteAsPooled(db);
  return db;
}
