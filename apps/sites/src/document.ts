import type { DemoSite, SitePage } from './page.ts';

/** Wraps a page in the site's frame, with the tag's ordinary snippet in its head. */
export function htmlDocument(site: DemoSite, page: SitePage, edgeOrigin: string): string {
  const here = (path: string) => (path === page.path ? ' aria-current="page"' : '');
  return `<!doctype html>
<html lang="${site.lang}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${page.title} · ${site.name}</title>
<meta name="description" content="${page.description}">
<meta property="og:type" content="${page.kind}">
<link rel="icon" href="/icon.svg" type="image/svg+xml">
<link rel="stylesheet" href="/site.css">
<script async src="${edgeOrigin}/tag/${site.siteKey}.js"></script>
<script defer src="/site.js"></script>
</head>
<body data-kind="${page.kind}">
<header class="top"><a class="brand" href="/">${site.name}</a>
<nav aria-label="Main">${site.nav.map(({ path, label }) => `<a href="${path}"${here(path)}>${label}</a>`).join('')}</nav></header>
<main>${page.body}</main>
<footer>${site.footer}</footer>
</body>
</html>`;
}

export function sitemap(site: DemoSite, origin: string): string {
  const urls = site.pages.map(({ path }) => `<url><loc>${origin}${path}</loc></url>`).join('');
  return `<?xml version="1.0" encoding="UTF-8"?><urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">${urls}</urlset>`;
}
