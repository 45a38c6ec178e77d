import { seaAndBoat } from '../art.ts';
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

const css = `
body{margin:0;background:#fff;color:#173040;font:16px/1.6 Verdana,sans-serif}
.top{display:flex;flex-wrap:wrap;gap:8px 28px;padding:14px 24px;border-bottom:6px solid #b5452c}
.brand{font-weight:bold;color:#b5452c;text-decoration:none}
nav{display:flex;gap:18px;flex-wrap:wrap}
main{max-width:900px;margin:0 auto;padding:20px 24px 60px}
footer{padding:20px 24px;background:#173040;color:#fff;font-size:13px}
.art{display:block;width:100%;height:280px}
.go{background:#173040;color:#fff;padding:8px 16px;text-decoration:none}
table{border-collapse:collapse}td,th{border:1px solid #9ab;padding:8px 14px;text-align:left}
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
