import type { MailDraft, ToldEvent } from '@velarium/contract';

/** A mail to a member, or to whoever is asked to become one; its link is made when it goes out. */
export type MemberMail =
  | { readonly of: 'invitation'; readonly invitation: string }
  | { readonly of: 'password'; readonly account: string }
  | { readonly of: 'agreement'; readonly plan: string };

/** The mail of a site's week: whose it is, and its days. */
export interface WeekMail {
  readonly of: 'week';
  readonly account: string;
  readonly from: string;
  readonly until: string;
}

/** What a delivery is made of when it goes out. What somebody sent is read then, so that nothing of it stands here. */
export type DeliveryPayload =
  /** `at`: which mail of the series. */
  | { readonly of: 'person'; readonly campaignId: string; readonly form: string; readonly at: number }
  | {
      readonly of: 'confirmation';
      readonly campaignId: string;
      readonly form: string;
      readonly endsAt: string;
    }
  | {
      readonly of: 'notice';
      readonly campaignId: string;
      readonly form: string;
      readonly to: readonly string[];
    }
  | {
      readonly of: 'digest';
      readonly campaignId: string;
      readonly form: string;
      readonly to: readonly string[];
      readonly from: string;
      readonly until: string;
    }
  | {
      readonly of: 'trial';
      readonly mail: MailDraft;
      readonly isConfirmation: boolean;
      readonly language?: string | null | undefined;
      readonly reader?: string | null | undefined;
    }
  | MemberMail
  | WeekMail
  | { readonly of: 'alert'; readonly subject: string; readonly words: string }
  | {
      readonly of: 'event';
      readonly event: ToldEvent;
      readonly at: string;
      readonly data: Readonly<Record<string, unknown>>;
    };
