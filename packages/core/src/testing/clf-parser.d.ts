/** What of it is compared; it comes without types. */
declare module 'clf-parser' {
  // It has no other.
  // biome-ignore lint/style/noDefaultExport: see above
  export default function clf(line: string): {
    readonly remote_addr: string;
    readonly time_local: Date;
    readonly http_method: string;
    readonly path: string;
    readonly status: number;
    readonly http_referer: string;
    readonly http_user_agent: string;
  };
}
