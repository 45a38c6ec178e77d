import { nightSky } from '../art.ts';
import type { SitePage } from '../page.ts';
import { ARTICLES, type Article } from './articles.ts';

const TOURS = [
  {
    slug: 'first-light',
    title: 'First light',
    price: 18,
    text: 'Two hours after dusk with the twelve-inch and a guide who likes questions. The Moon if there is one, two double stars, a cluster, and Saturn to end with. For anyone from eight years on.',
    dates: ['Friday 4 December, 18:30', 'Saturday 12 December, 18:30', 'Friday 18 December, 18:30'],
  },
  {
    slug: 'deep-sky',
    title: 'Deep sky',
    price: 26,
    text: 'Three hours on a moonless night, in the big dome. Galaxies, a nebula or two, and the long silence in which the eye gets used to them. Warm clothes are a must; soup is included.',
    dates: ['Thursday 10 December, 20:00', 'Friday 11 December, 20:00'],
  },
] as const;

const GOODS = [
  {
    id: 'star-map',
    title: 'Season’s star map',
    price: 12,
    text: 'Printed on cloth, so it survives the dew.',
  },
  {
    id: 'red-lamp',
    title: 'Red lamp',
    price: 24,
    text: 'Dim enough to be of use. Runs a winter on one cell.',
  },
  { id: 'mug', title: 'Observatory mug', price: 14, text: 'Holds soup. Keeps it hot for one constellation.' },
  {
    id: 'notebook',
    title: 'Meteor notebook',
    price: 9,
    text: 'Ruled for strokes, with a pencil on a string.',
  },
] as const;

const article = ({ slug, title, standfirst, sections }: Article, seed: number): SitePage => ({
  path: `/journal/${slug}`,
  title,
  kind: 'article',
  description: standfirst,
  body: `<article class="long"><p class="eyebrow">Sky journal</p><h1>${title}</h1><p class="standfirst">${standfirst}</p>
${nightSky(seed, `The dome under the night sky, drawn for ${title}`)}
${sections
  .map(
    ({ heading, paragraphs }, i) =>
      `<section><h2 id="part-${i + 1}">${heading}</h2>${paragraphs.map((text) => `<p>${text}</p>`).join('')}</section>`,
  )
  .join('')}
<p class="end">End of the article. <a href="/journal">Back to the journal</a></p></article>`,
});

const tour = ({ slug, title, price, text, dates }: (typeof TOURS)[number], at: number): SitePage => ({
  path: `/night-tours/${slug}`,
  title: `${title} tour`,
  kind: 'tour',
  description: `A night tour at Quillon Fell: ${title}.`,
  body: `<div class="tour"><div><p class="eyebrow">Night tours</p><h1>${title}</h1><p class="standfirst">${text}</p>
<h2>Dates</h2><ul class="dates">${dates.map((date) => `<li>${date}</li>`).join('')}</ul>
<p><button class="buy" data-add="tour-${slug}" data-title="${title} tour" data-price="${price}">Put in the basket, £${price}</button></p></div>${nightSky(at + 23, '')}</div>`,
});

export const FELL_PAGES: readonly SitePage[] = [
  {
    path: '/',
    title: 'Home',
    kind: 'website',
    description: 'A public observatory on a mountain, open to anyone on clear nights.',
    body: `<div class="hero">${nightSky(3, 'The observatory’s dome on the ridge under the stars')}<div><h1>The sky is open tonight</h1><p>A public observatory at six hundred and forty metres, kept by people who would be up anyway.</p><p><a class="cta" href="/night-tours">See the night tours</a></p></div></div>
<div class="three"><section><h2>Night tours</h2><p>Two hours or three, with a guide, a telescope and soup.</p><a href="/night-tours">Dates and places</a></section>
<section><h2>Sky journal</h2><p>What we saw, how to see it, and what to write down.</p><a href="/journal">Read the journal</a></section>
<section><h2>Membership</h2><p>The reading room, the members’ nights and the key to the lower hut.</p><a href="/membership">Become a member</a></section></div>`,
  },
  {
    path: '/journal',
    title: 'Sky journal',
    kind: 'index',
    description: 'Articles from the mountain.',
    body: `<h1>Sky journal</h1><div class="cards">${ARTICLES.map(
      ({ slug, title, standfirst }, i) =>
        `<a class="card" href="/journal/${slug}">${nightSky(i + 11, '')}<h2>${title}</h2><p>${standfirst}</p></a>`,
    ).join('')}</div>`,
  },
  ...ARTICLES.map((one, i) => article(one, i + 11)),
  {
    path: '/night-tours',
    title: 'Night tours',
    kind: 'index',
    description: 'Evenings at the telescope with a guide.',
    body: `<h1>Night tours</h1><p class="standfirst">If it is cloudy we write to you at three in the afternoon, and you choose another night.</p><div class="cards">${TOURS.map(
      ({ slug, title, price, text }) =>
        `<a class="card" href="/night-tours/${slug}"><h2>${title}</h2><p>${text}</p><p><strong>£${price}</strong></p></a>`,
    ).join('')}</div>`,
  },
  ...TOURS.map(tour),
  {
    path: '/shop',
    title: 'Shop',
    kind: 'shop',
    description: 'Things that are of use in the dark.',
    body: `<h1>Shop</h1><div class="cards">${GOODS.map(
      ({ id, title, price, text }) =>
        `<section class="card"><h2>${title}</h2><p>${text}</p><p><strong>£${price}</strong></p><button class="buy" data-add="${id}" data-title="${title}" data-price="${price}">Put in the basket</button></section>`,
    ).join('')}</div><p><a href="/shop/basket">To the basket</a></p>`,
  },
  {
    path: '/shop/basket',
    title: 'Basket',
    kind: 'basket',
    description: 'What you have chosen.',
    body: `<h1>Basket</h1><div data-basket></div><p><a class="cta" href="/shop/checkout">To the checkout</a></p>`,
  },
  {
    path: '/shop/checkout',
    title: 'Checkout',
    kind: 'checkout',
    description: 'Where it should go.',
    body: `<h1>Checkout</h1><div data-basket></div><form class="plain" data-checkout><label>Name <input name="name" autocomplete="name" required></label><label>Mail address <input name="email" type="email" autocomplete="email" required></label><label>Address <input name="address" autocomplete="street-address" required></label><button>Place the order</button><p role="status"></p></form>`,
  },
  {
    path: '/membership',
    title: 'Membership',
    kind: 'membership',
    description: 'Keep the dome turning.',
    body: `<h1>Membership</h1><p class="standfirst">£40 a year, £20 for students, nothing at all for the first year after you have moved here.</p><h2>What you get</h2><ul><li>The members’ nights, first and third Thursday</li><li>The reading room and the long table of meteor counts</li><li>The key to the lower hut, after one evening’s teaching</li></ul><p><a class="cta" href="/contact">Write to us to join</a></p>`,
  },
  {
    path: '/members',
    title: 'Members’ area',
    kind: 'members',
    description: 'For members.',
    body: `<h1>Members’ area</h1><div data-members><form class="plain" data-sign-in><label>Your name <input name="name" autocomplete="name" required></label><button>Sign in</button></form></div>`,
  },
  {
    path: '/about',
    title: 'About us',
    kind: 'website',
    description: 'Who keeps the dome turning.',
    body: `<h1>About us</h1><p>The observatory was built by a schoolteacher, two shepherds and a retired ship’s engineer, and opened on a night of freezing fog. It has been kept by volunteers ever since.</p>${nightSky(21, 'The lower hut and the dome by night')}<p>There are nineteen of us. None of us is paid and all of us are tired, mostly for good reasons.</p>`,
  },
  {
    path: '/contact',
    title: 'Contact and getting here',
    kind: 'website',
    description: 'Where we are and how to reach us.',
    body: `<h1>Contact and getting here</h1><p>Write to <a href="mailto:desk@quillonfell.example">desk@quillonfell.example</a> or ring 01632 960 146 after two in the afternoon.</p><h2>By road</h2><p>The summit road is open from the lower gate when the barrier is up. In snow we fetch you in the old carrier.</p><h2>By bus</h2><p>The valley bus stops at the lower gate at 17:40 and goes back at 22:15, which is just enough.</p>`,
  },
  {
    path: '/accessibility',
    title: 'Accessibility',
    kind: 'website',
    description: 'Reaching the telescope, whoever you are.',
    body: `<h1>Accessibility</h1><p>The lower dome has a ramp and an eyepiece that comes to you. Tell us beforehand and the guide will bring the folding stool, the large-print map and as much time as it takes.</p><p>These pages should work with any reader and any keyboard. If something does not, tell the desk.</p>`,
  },
];
