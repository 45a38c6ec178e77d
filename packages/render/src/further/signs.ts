const SVG = 'http://www.w3.org/2000/svg';

/** Signs of our own, on a ground of 24 by 24. */
const PATHS = {
  play: ['M8 5.5v13l11-6.5z'],
  system: ['M12 3v12', 'M8 7l4-4 4 4', 'M5 12v8h14v-8'],
  mail: ['M3 6h18v12H3z', 'M3 7l9 7 9-7'],
  copy: ['M9 8h11v12H9z', 'M15 8V4H4v12h5'],
  address: [
    'M10 14a4 4 0 0 0 6 .4l3-3a4 4 0 0 0-5.7-5.7l-1 1',
    'M14 10a4 4 0 0 0-6-.4l-3 3a4 4 0 0 0 5.7 5.7l1-1',
  ],
} as const;

export function sign(document: Document, name: keyof typeof PATHS): SVGElement {
  const svg = document.createElementNS(SVG, 'svg');
  svg.setAttribute('viewBox', '0 0 24 24');
  svg.setAttribute('aria-hidden', 'true');
  for (const d of PATHS[name]) {
    const path = document.createElementNS(SVG, 'path');
    path.setAttribute('d', d);
    svg.append(path);
  }
  return svg;
}
