import { seaAndBoat } from '../art.ts';
import { fontFace } from '../letters.ts';
import { type DemoSite, SITE_KEYS, type SitePage } from '../page.ts';

const sailings = [
  ['Haven Quay', '07:10', '10:40', '15:20', '18:50'],
  ['Outer Skerry', '08:05', '11:35', '16:15', '19:45'],
  ['Lantern Isle', '08:50', '12:20', '17:00', '–'],
];

const pages: readonly SitePage[] = [
  {
    path: '/',
    title: 'Home',
    kind: 'website',
    description: 'Ferries to the skerries, four times a day.',
    body: `${seaAndBoat(5, 'The ferry on a calm sea')}<h1>Across the sound, four times a day</h1><p>Bicycles free, dogs welcome, weather permitting.</p><p><a class="go" href="/timetables">Timetables</a> <a class="go" href="/fares">Fares</a></p>`,
  },
  {
    path: '/timetables',
    title: 'Timetables',
    kind: 'timetable',
    description: 'Sailings by quay.',
    body: `<h1>Timetables</h1><table><tbody>${sailings.map(([quay, ...times]) => `<tr><th>${quay}</th>${times.map((time) => `<td>${time}</td>`).join('')}</tr>`).join('')}</tbody></table>`,
  },
  {
    path: '/fares',
    title: 'Fares',
    kind: 'fares',
    description: 'What a crossing costs.',
    body: '<h1>Fares</h1><p>£9 across, £16 there and back. Children half. Islanders £3 with their card.</p>',
  },
  {
    path: '/notices',
    title: 'Notices',
    kind: 'notice',
    description: 'Changes to sailings.',
    body: '<h1>Notices</h1><p>The 19:45 from Outer Skerry does not sail on the last Sunday of the month.</p>',
  },
  {
    path: '/contact',
    title: 'Contact',
    kind: 'website',
    description: 'The office at Haven Quay.',
    body: '<h1>Contact</h1><p>The office at Haven Quay is open while a ferry is out. Write to <a href="mailto:office@skerryline.example">office@skerryline.example</a>.</p>',
  },
];

const css = `${fontFace('nunito')}
body{margin:0;background:#f7fafa;color:#173040;font:17px/1.6 Nunito,Verdana,sans-serif}
h1{font-size:2.4rem;line-height:1.15;font-weight:800;letter-spacing:-.01em;margin:.6em 0 .4em}
.top{display:flex;flex-wrap:wrap;align-items:baseline;gap:8px 28px;padding:16px max(24px,calc(50vw - 450px));background:#fff;border-bottom:5px solid #b5452c}
.brand{font-weight:800;font-size:1.15rem;color:#b5452c;text-decoration:none}
nav{display:flex;gap:22px;flex-wrap:wrap;margin-left:auto}
nav a{color:#173040;text-decoration:none;font-weight:600}
nav a[aria-current]{color:#b5452c}
main{max-width:900px;margin:0 auto;padding:24px 24px 72px}
footer{padding:26px max(24px,calc(50vw - 450px));background:#173040;color:#dfe9ea;font-size:14px}
.art{display:block;width:100%;height:320px;border-radius:18px}
.go{display:inline-block;background:#173040;color:#fff;padding:10px 20px;border-radius:99px;text-decoration:none;font-weight:700;margin-right:8px}
table{border-collapse:collapse;background:#fff;border-radius:12px;overflow:hidden;box-shadow:0 1px 3px #1730401f}td,th{border-bottom:1px solid #dbe5e7;padding:12px 20px;text-align:left}
`;

export const SKERRY: DemoSite = {
  name: 'Skerry Line Ferries',
  siteKey: SITE_KEYS.skerry,
  lang: 'en-GB',
  css,
  script: '',
  nav: [
    { path: '/timetables', label: 'Timetables' },
    { path: '/fares', label: 'Fares' },
    { path: '/notices', label: 'Notices' },
    { path: '/contact', label: 'Contact' },
  ],
  footer: 'Skerry Line Ferries · an invented line, made to try Velarium on',
  pages,
};
