import { DomHandler, Parser } from 'htmlparser2';

/** Far deeper than any page is meant to be; browsers themselves stop at some 500 (common practice). */
const MOST_DEEP = 2000;
const TOO_DEEP = new Error('deeper in itself than any page');

class Handler extends DomHandler {
  override onopentag(name: string, attribs: Record<string, string>): void {
    if (this.tagStack.length > MOST_DEEP) throw TOO_DEEP;
    super.onopentag(name, attribs);
  }
}

/**
 * The document of a page that anybody may have written. It ends where the page lies too deep in itself: what the parser does for an
 * element grows with how deep that lies, and a page of nothing but beginnings took a minute.
 */
export function parseHtml(html: string): DomHandler['root'] {
  const handler = new Handler();
  try {
    new Parser(handler).end(html);
  } catch (error) {
    if (error !== TOO_DEEP) throw error;
  }
  return handler.root;
}
