/** How long a message waits for its letters: longer than most need, shorter than anybody would wonder. */
const PATIENCE_MS = 700;

/**
 * Loads the letters that a message's sheet asks for, and keeps it out of sight until they are there. What comes too late is
 * kept for the next time: letters that change under a reader's eyes are worse than others.
 */
export function bringLetters(layer: HTMLElement): void {
  const document = layer.ownerDocument;
  const view = document.defaultView as Window & typeof globalThis;
  const asked = view
    .getComputedStyle(layer)
    .getPropertyValue('--letters')
    .replace(/^["']|["']$/g, '');
  if (!asked) return;
  const known = new Set([...document.fonts].map(({ family }) => family.replace(/"/g, '')));
  const faces = asked.split(',').flatMap((one) => {
    const [family = '', weight = '', address = ''] = one.split('|');
    return known.has(family)
      ? []
      : [new view.FontFace(family, `url(${JSON.stringify(address)})`, { weight })];
  });
  if (faces.length === 0) return;
  layer.style.opacity = '0';
  let isSeen = false;
  const show = () => {
    isSeen = true;
    layer.style.opacity = '';
  };
  setTimeout(show, PATIENCE_MS);
  const bring = (face: FontFace) =>
    face.load().then(
      () => {
        if (!isSeen) document.fonts.add(face);
      },
      // A page may forbid them, and its message is read without; the others of a message are none the worse for it.
      () => {},
    );
  void Promise.all(faces.map(bring)).then(show);
}
