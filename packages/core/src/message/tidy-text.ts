import type { RichText, TextSpan } from '@velarium/contract';

const STYLE_OF_SPAN = ['bold', 'italic', 'link', 'isHere', 'colour', 'size'] as const;
const isSameStyle = (a: TextSpan, b: TextSpan) => STYLE_OF_SPAN.every((key) => a[key] === b[key]);

/** Joins neighbouring spans of one style and drops empty ones, so equal texts are equal trees. */
export function tidyRichText(content: RichText): RichText {
  return content.map((paragraph) => {
    const tidy: RichText[number] = [];
    for (const span of paragraph) {
      const last = tidy.at(-1);
      if (span.text === '') continue;
      if (last && isSameStyle(last, span)) {
        tidy[tidy.length - 1] = { ...last, text: last.text + span.text };
      } else tidy.push(span);
    }
    return tidy;
  });
}
