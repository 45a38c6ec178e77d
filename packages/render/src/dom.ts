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
