import type {
  Audience,
  CampaignDocument,
  CampaignFile,
  FollowUp,
  Ground,
  MailDraft,
  Message,
  PageRule,
  Styled,
} from '@velarium/contract';
import { allBlocks, changeBlock } from '../message/walk.ts';
import { DEFAULT_TRIAL } from '../results/trial.ts';

/** What a site has that a campaign can refer to, by id. */
export interface SiteOffer {
  readonly looks: ReadonlyMap<string, string>;
  readonly groups: ReadonlyMap<string, string>;
  readonly campaigns: ReadonlyMap<string, string>;
  readonly pictures: ReadonlySet<string>;
}

export interface Settled {
  readonly document: CampaignDocument;
  /** What follows the answers, by the form. */
  readonly followUps: Readonly<Record<string, FollowUp>>;
  /** What the site lacks, and what stands in its place, in words. */
  readonly lost: readonly string[];
}

/** The id of what is meant: the very same where the site has it, else what it calls by the same name. */
function idOn(offer: ReadonlyMap<string, string>, id: string, name: string | undefined): string | undefined {
  if (offer.has(id)) return id;
  return name === undefined ? undefined : [...offer].find(([, one]) => one === name)?.[0];
}

/**
 * Puts a campaign that comes from elsewhere on a site's own feet. Nothing is lost but what the site lacks.
 *
 * @param keepsNotices Whether the team stays the one that is told of answers; a file can come from any other.
 */
export function settleIn(
  { document, followUps, names }: CampaignFile,
  offer: SiteOffer,
  keepsNotices = true,
): Settled {
  const lost = new Set<string>();
  const settleMessage = (message: Message) => settlePictures(settleLook(message), offer, names, lost);
  const settleLook = (message: Message): Message => {
    if (message.look === null) return message;
    const look = idOn(offer.looks, message.look, names.looks[message.look]);
    if (look === undefined)
      lost.add(
        `The Look “${names.looks[message.look] ?? 'without a name'}”: the message follows the site’s own.`,
      );
    return { ...message, look: look ?? null };
  };
  const settleRules = (rules: readonly PageRule[]): PageRule[] =>
    rules.flatMap((rule): PageRule[] => {
      if (rule.kind !== 'group') return [rule];
      const group = names.groups[rule.id];
      const id = idOn(offer.groups, rule.id, group?.name);
      if (id !== undefined) return [{ kind: 'group', id }];
      lost.add(
        `The page group “${group?.name ?? 'without a name'}”: ${group ? 'its rules stand in the campaign itself, and follow it no more' : 'its pages are left out'}.`,
      );
      return group ? [...group.rules] : [];
    });
  const campaignOn = (id: string, what: string): string | undefined => {
    const found = idOn(offer.campaigns, id, names.campaigns[id]);
    if (found === undefined) lost.add(`${what} “${names.campaigns[id] ?? 'without a name'}”.`);
    return found;
  };
  const { pages, audience } = document.rule.reach;
  const { goal, ...trial } = document.trial ?? DEFAULT_TRIAL;
  if (goal) lost.add('The goal its variants are tried for: they are tried for its own answer or click.');
  return {
    document: {
      ...(document.trial ? { trial } : {}),
      message: settleMessage(document.message),
      variants: document.variants.map((variant) => ({ ...variant, message: settleMessage(variant.message) })),
      rule: {
        ...document.rule,
        reach: {
          ...document.rule.reach,
          pages: {
            include: settleRules(pages.include),
            exclude: settleRules(pages.exclude),
            follows:
              pages.follows === null
                ? null
                : (campaignOn(pages.follows, 'The pages it took over from the campaign') ?? null),
          },
          audience: audience && settleAudience(audience, campaignOn),
        },
      },
    },
    followUps: Object.fromEntries(
      Object.entries(followUps).map(([form, followUp]) => [
        form,
        settleFollowUp(followUp, keepsNotices, offer, names, lost),
      ]),
    ),
    lost: [...lost],
  };
}

function settleFollowUp(
  { confirmation, welcome, notice }: FollowUp,
  keepsNotices: boolean,
  offer: SiteOffer,
  names: CampaignFile['names'],
  lost: Set<string>,
): FollowUp {
  const settle = <Of extends { readonly mail: MailDraft }>(one: Of): Of => {
    const { picture } = one.mail;
    if (picture === null || offer.pictures.has(picture.id)) return one;
    lost.add(
      `The picture “${names.pictures[picture.id] ?? 'without a name'}” of the mail “${one.mail.subject}”.`,
    );
    return { ...one, mail: { ...one.mail, picture: null } };
  };
  if (notice && !keepsNotices)
    lost.add(`Who is told of each answer (${notice.to.join(', ')}): name them anew, if they are yours.`);
  return {
    confirmation: confirmation && settle(confirmation),
    welcome: welcome.map(settle),
    notice: keepsNotices ? notice : null,
  };
}

function settleAudience(
  audience: Audience,
  campaignOn: (id: string, what: string) => string | undefined,
): Audience | null {
  const groups = audience.groups.flatMap((group) => {
    const items = group.items.flatMap((item) => {
      const { condition } = item;
      if (condition.kind !== 'campaign' || condition.id === null) return [item];
      const id = campaignOn(condition.id, 'The condition on the campaign');
      return id === undefined ? [] : [{ ...item, condition: { ...condition, id } }];
    });
    return items.length === 0 ? [] : [{ ...group, items }];
  });
  return groups.length === 0 ? null : { ...audience, groups };
}

/** Pictures the site has not got are left out; a ground keeps its tint. */
function settlePictures(
  message: Message,
  offer: SiteOffer,
  names: CampaignFile['names'],
  lost: Set<string>,
): Message {
  const isHere = (picture: string) => picture.startsWith('drawn:') || offer.pictures.has(picture);
  const leave = (picture: string) =>
    lost.add(`The picture “${names.pictures[picture] ?? 'without a name'}”: its place is empty.`);
  const ground = (value: Ground): Ground => {
    if (value.kind !== 'picture' || isHere(value.picture)) return value;
    leave(value.picture);
    return { kind: 'colour', colour: value.tint };
  };
  const styled = ({ all, tablet, mobile }: Styled): Styled => {
    const one = (style: Styled['all']) => (style.ground ? { ...style, ground: ground(style.ground) } : style);
    return { all: one(all), tablet: one(tablet), mobile: one(mobile) };
  };
  const { close } = message;
  const hasClose = close.picture === null || isHere(close.picture);
  if (close.picture !== null && !hasClose) leave(close.picture);
  let settled: Message = {
    ...message,
    style: styled(message.style),
    close: hasClose ? close : { ...close, picture: null, sign: 'cross' },
  };
  for (const { id } of allBlocks(settled)) {
    settled = changeBlock(settled, id, (block) => {
      const own = { ...block, style: styled(block.style) };
      if ((own.kind !== 'picture' && own.kind !== 'film') || own.picture === null || isHere(own.picture))
        return own;
      leave(own.picture);
      return { ...own, picture: null };
    });
  }
  return settled;
}
