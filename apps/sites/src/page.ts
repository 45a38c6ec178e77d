/** One page of a demo site. `body` is our own trusted HTML, never anything a visitor sent. */
export interface SitePage {
  readonly path: string;
  readonly title: string;
  /** Declared to whoever reads the page, as `og:type` or a kind of the site's own. */
  readonly kind: string;
  readonly description: string;
  readonly body: string;
}

export interface DemoSite {
  readonly name: string;
  readonly siteKey: string;
  readonly lang: string;
  readonly css: string;
  readonly script: string;
  readonly nav: readonly { readonly path: string; readonly label: string }[];
  readonly footer: string;
  readonly pages: readonly SitePage[];
}

export const SITE_KEYS = { fell: 'quillonfell2', skerry: 'skerryline22' } as const;
