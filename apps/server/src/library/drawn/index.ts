import type { DrawnPicture } from '@velarium/core';
import { hills, stars, svg, waves } from './scenery.ts';

/**
 * The pictures that come with Velarium, drawn here in plain shapes. Each is 1200 by 800. Stars and waves are strewn by
 * a fixed formula, so a picture is the same every time it is drawn.
 */
const DRAWINGS: Readonly<Record<DrawnPicture, () => string>> = {
  dome: () =>
    svg(
      ['#0b1330', '#2b3e74', '#6d6f9c'],
      `${stars(170, 1)}
      <path d="M-40 300C260 120 620 250 1240-60" stroke="#cfd8ff" stroke-opacity=".13" stroke-width="150" fill="none"/>
      <path d="M-40 320C280 160 640 270 1240-20" stroke="#fff3d8" stroke-opacity=".12" stroke-width="60" fill="none"/>
      ${hills('#18224a', 640, 60, 1)}${hills('#0d142e', 700, 40, 4)}
      <path d="M420 640v-90a170 170 0 0 1 340 0v90z" fill="#e9e3d3"/><path d="M590 380a170 170 0 0 1 170 170v90H590z" fill="#cfc6b0"/>
      <path d="M566 384h48v150h-48z" fill="#1a2347"/><path d="M400 640h380v70H400z" fill="#b9ae95"/><path d="M640 654h44v56h-44z" fill="#f0c257"/>`,
    ),
  'milky-way': () =>
    svg(
      ['#060b1e', '#16224a', '#47456f'],
      `<g transform="rotate(-24 600 400)"><ellipse cx="640" cy="360" rx="820" ry="130" fill="#aab6f0" opacity=".12"/><ellipse cx="640" cy="366" rx="780" ry="70" fill="#ffe6c4" opacity=".14"/><ellipse cx="720" cy="352" rx="420" ry="22" fill="#0a0f24" opacity=".4"/></g>
      ${stars(320, 2)}${hills('#0b1024', 650, 90, 2)}${hills('#05070f', 730, 40, 6)}`,
    ),
  saturn: () =>
    svg(
      ['#0a0f22', '#141c3c', '#1c2650'],
      `${stars(90, 3)}
      <g transform="rotate(-18 600 400)"><path d="M170 400a430 112 0 0 1 860 0" fill="none" stroke="#e6cf9a" stroke-width="46" opacity=".75"/><path d="M236 400a364 88 0 0 1 728 0" fill="none" stroke="#8d7a52" stroke-width="14" opacity=".8"/>
      <circle cx="600" cy="400" r="206" fill="#e7c988"/><path d="M402 345a206 206 0 0 1 396 0z" fill="#d8b673"/><path d="M394 400h412a206 206 0 0 1-10 62H404a206 206 0 0 1-10-62z" fill="#caa562"/><path d="M430 516h340a206 206 0 0 1-340 0z" fill="#b18c4e"/>
      <path d="M600 194a206 206 0 0 1 0 412 300 300 0 0 0 0-412z" fill="#3a2b14" opacity=".28"/>
      <path d="M170 400a430 112 0 0 0 860 0" fill="none" stroke="#f0dcae" stroke-width="46" opacity=".92"/><path d="M236 400a364 88 0 0 0 728 0" fill="none" stroke="#9a8558" stroke-width="14"/></g>`,
    ),
  ridge: () =>
    svg(
      ['#2d3561', '#c0738a', '#f2b98a'],
      `<circle cx="820" cy="470" r="70" fill="#ffe9c2" opacity=".9"/>${stars(26, 4)}
      ${hills('#8d6b8a', 470, 90, 3)}${hills('#5b4a74', 560, 80, 5)}${hills('#332f58', 640, 60, 7)}${hills('#1a1c3c', 720, 36, 9)}
      <path d="M286 640l20-44 20 44z" fill="#14162f"/><path d="M300 596h12v-26h-12z" fill="#14162f"/>`,
    ),
  'star-map': () =>
    svg(
      ['#13244a', '#13244a', '#13244a'],
      `<g fill="none" stroke="#8fa6d8" stroke-opacity=".35" stroke-width="2">${[110, 200, 290, 380].map((r) => `<circle cx="600" cy="400" r="${r}"/>`).join('')}${Array.from({ length: 12 }, (_, n) => `<path d="M600 400L${(600 + 400 * Math.cos((n * Math.PI) / 6)).toFixed(0)} ${(400 + 400 * Math.sin((n * Math.PI) / 6)).toFixed(0)}"/>`).join('')}</g>
      ${stars(120, 5)}<path d="M520 210L760 300 570 560z" fill="none" stroke="#f0c257" stroke-width="4"/>
      ${[
        [520, 210],
        [760, 300],
        [570, 560],
      ]
        .map(([x, y]) => `<circle cx="${x}" cy="${y}" r="13" fill="#ffe9b0"/>`)
        .join('')}
      <circle cx="600" cy="400" r="392" fill="none" stroke="#f6f1e4" stroke-width="6"/>`,
    ),
  comet: () =>
    svg(
      ['#0a1430', '#243a6b', '#5a6c92'],
      `${stars(120, 6)}<path d="M330 560Q640 380 1080 60 760 330 352 584z" fill="#dff0ff" opacity=".5"/><path d="M336 566Q560 470 900 300 620 480 348 580z" fill="#fff" opacity=".55"/>
      <circle cx="340" cy="572" r="18" fill="#fff"/>${hills('#0d1838', 670, 60, 8)}${hills('#060c20', 740, 30, 3)}`,
    ),
  hut: () =>
    svg(
      ['#1b2852', '#41517f', '#97a0b8'],
      `${stars(80, 7)}${hills('#c8d2e2', 560, 80, 6)}${hills('#e6ecf4', 650, 44, 2)}
      <path d="M470 590l130-96 130 96v104H470z" fill="#4a2f22"/><path d="M452 596l148-112 148 112-14 16-134-100-134 100z" fill="#f4f7fb"/>
      <path d="M566 610h68v56h-68z" fill="#ffcf70"/><path d="M598 610h4v56h-4zM566 636h68v4h-68z" fill="#4a2f22"/><path d="M660 520v-40h26v62z" fill="#36211a"/>
      <path d="M672 470c-20-30 30-40 6-80s30-50 16-80" stroke="#fff" stroke-opacity=".4" stroke-width="10" fill="none"/>
      <path d="M540 700l60-34 60 34 40 100H500z" fill="#ffdf9a" opacity=".35"/>`,
    ),
  moon: () =>
    svg(
      ['#10182f', '#1a2547', '#1a2547'],
      `${stars(60, 8)}${[0, 1, 2, 3, 4]
        .map((n) => {
          const x = 160 + n * 220;
          const bend = [90, 40, 0, -40, -90][n] ?? 0;
          return `<circle cx="${x}" cy="400" r="90" fill="#2a3558"/><path d="M${x} 310a90 90 0 0 1 0 180 ${Math.abs(bend) || 1} 90 0 0 ${bend >= 0 ? 0 : 1} 0-180z" fill="#f3ead2"/>`;
        })
        .join('')}`,
    ),
  aurora: () =>
    svg(
      ['#04101c', '#0b2a38', '#123a44'],
      `${stars(140, 9)}
      ${[0, 1, 2, 3].map((n) => `<path d="M${-60 + n * 60} ${500 - n * 30}C${240 + n * 50} ${240 - n * 40} ${520 - n * 30} ${470 - n * 70} ${840 + n * 20} ${230 - n * 20}S1200 ${180 + n * 20} 1280 ${60 + n * 26}V${180 + n * 40}C1100 ${330 + n * 20} 900 ${330 - n * 10} 760 ${430 - n * 20}S300 ${420 - n * 20} ${-60 + n * 60} ${620 - n * 20}z" fill="${['#3df0a0', '#7affc0', '#37c9b0', '#b79bff'][n]}" opacity="${[0.3, 0.22, 0.2, 0.16][n]}"/>`).join('')}
      ${hills('#06141c', 600, 50, 5)}<path d="M0 640h1200v160H0z" fill="#0a2a34"/>${waves('#3df0a0', 660, 0.14, 4)}`,
    ),
  ferry: () =>
    svg(
      ['#8fc1cf', '#cfe3e2', '#f3ead6'],
      `${hills('#6f97a3', 420, 60, 4)}${hills('#4d7683', 470, 34, 7)}<path d="M0 500h1200v300H0z" fill="#1f6a78"/>${waves('#d9f0f0', 540, 0.35, 7)}
      <path d="M330 520h560l-60 90H400z" fill="#fff"/><path d="M400 610h430l-24 34H436z" fill="#b3402a"/><path d="M430 440h330v80H430z" fill="#f6f1e4"/><path d="M470 384h170v56H470z" fill="#fff"/><path d="M680 350h52v90h-52z" fill="#0b6b76"/>
      <g fill="#24434d">${[0, 1, 2, 3, 4, 5].map((n) => `<circle cx="${466 + n * 52}" cy="480" r="13"/>`).join('')}</g><path d="M706 340c40-30 90-10 130-40" stroke="#fff" stroke-width="16" stroke-opacity=".6" fill="none"/>`,
    ),
};

/** The drawing of this name as SVG. */
export const drawnPicture = (name: string): string | undefined =>
  Object.hasOwn(DRAWINGS, name) ? DRAWINGS[name as DrawnPicture]() : undefined;
