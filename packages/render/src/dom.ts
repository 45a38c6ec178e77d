type Children = readonly (Node | string)[];

/** Makes an element with attributes and children. Text only ever becomes text nodes. */
export function element<Name extends keyof HTMLElementTagNameMap>(
  document: Document,
  name: Name,
  attributes: Readonly<Record<string, string>> = {},
  children: Children = [],
): HTMLElementTagNameMap[Name] {
  const made = document.createElement(name);
  for (const key in attributes) made.setAttribute(key, attributes[key] as string);
  made.append(...children);
  return made;
}

const SVG = 'http://www.w3.org/2000/svg';

/** The sign on the close button: a cross of two strokes. */
export function crossSign(document: Document): SVGElement {
  const svg = document.createElementNS(SVG, 'svg');
  svg.setAttribute('viewBox', '0 0 14 14');
  svg.setAttribute('aria-hidden', 'true');
  const path = document.createElementNS(SVG, 'path');
  path.setAttribute('d', 'M1 1l12 12M13 1L1 13');
  svg.append(path);
  return svg;
}
