import type { CampaignDocument } from '@velarium/contract';
import type { Names } from '@velarium/core';
import { placeWords, valueWords } from './places.ts';

export interface BothTextsProps {
  readonly paths: readonly string[];
  readonly mine: CampaignDocument;
  readonly theirs: CampaignDocument;
  readonly names: Names;
}

/** What two people made of the same places, side by side. */
export function BothTexts({ paths, mine, theirs, names }: BothTextsProps) {
  // All of a rule is one sentence, said once.
  const shown = [...new Map(paths.map((path) => [path.startsWith('rule') ? 'rule' : path, path])).values()];
  return (
    <ul className="mb-5 grid gap-4">
      {shown.map((path) => (
        <li key={path}>
          <h3 className="mb-1 font-semibold">{placeWords(path, mine)}</h3>
          <dl className="grid gap-x-5 gap-y-2 sm:grid-cols-2">
            {[
              ['Yours', mine],
              ['Theirs', theirs],
            ].map(([whose, document]) => (
              <div key={whose as string} className="border-l-2 border-line-strong pl-3">
                <dt className="text-soft">{whose as string}</dt>
                <dd className="font-serif text-pretty">
                  {valueWords(path, document as CampaignDocument, names)}
                </dd>
              </div>
            ))}
          </dl>
        </li>
      ))}
    </ul>
  );
}
