// What somebody would write by hand for one message on one page: it fetches what to say, watches, and opens one box. The
// tag's own cost is held against it.
(() => {
  const edge = new URL(document.currentScript.src).origin;
  const started = performance.now();
  let told;
  let isOpen = false;
  let deepest = 0;
  const seen = JSON.parse(localStorage.getItem('by-hand') || '{"times":0}');
  const tell = (kind) =>
    fetch(`${edge}/collect`, {
      method: 'POST',
      body: JSON.stringify({ kind, page: location.pathname }),
      keepalive: true,
    });
  const open = () => {
    if (isOpen || !told) return;
    isOpen = true;
    seen.times += 1;
    localStorage.setItem('by-hand', JSON.stringify(seen));
    const host = document.createElement('by-hand');
    const root = host.attachShadow({ mode: 'open' });
    root.innerHTML = `<style>${told.sheet}</style><div class="box" role="dialog"><h2></h2><p></p><button>Close</button></div>`;
    root.querySelector('h2').textContent = told.heading;
    root.querySelector('p').textContent = told.text;
    root.querySelector('button').addEventListener('click', () => {
      host.remove();
      tell('closed');
    });
    document.body.append(host);
    tell('shown');
  };
  addEventListener(
    'scroll',
    () => {
      deepest = Math.max(deepest, (scrollY + innerHeight) / document.documentElement.scrollHeight);
      if (deepest > 0.9) open();
    },
    { passive: true },
  );
  document.addEventListener('mouseout', ({ relatedTarget, clientY }) => {
    if (!relatedTarget && clientY <= 0) open();
  });
  fetch(`${edge}/by-hand.json`)
    .then((answer) => answer.json())
    .then((answer) => {
      told = answer;
      tell('pageview');
      setTimeout(open, Math.max(0, told.seconds * 1000 - (performance.now() - started)));
    });
})();
