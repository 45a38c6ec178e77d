import type { CampaignDocument, MessageFile } from '@velarium/contract';
import { StageFrame } from '../workbench/stage/stage-frame.tsx';

/** A state of a campaign that is compared. */
export interface Compared {
  /** What it is called: `Version 3`, `The draft`. */
  readonly name: string;
  readonly document: CampaignDocument;
  /** As visitors had it, where that is known; drawn as it would be today otherwise. */
  readonly file?: MessageFile | undefined;
}

/** Its message at a desk and on a phone. */
export function Drawn({ of: { name, document, file } }: { readonly of: Compared }) {
  const frozen = file ? { frozen: file } : {};
  return (
    <figure className="grid content-start gap-1">
      <div className="flex items-start gap-2">
        <StageFrame
          message={document.message}
          device="desktop"
          width={250}
          height={156}
          isThumbnail
          {...frozen}
        />
        <StageFrame
          message={document.message}
          device="mobile"
          width={72}
          height={156}
          isThumbnail
          {...frozen}
        />
      </div>
      <figcaption className="text-xs text-soft">
        {name}
        {file ? ', as visitors had it' : ''}
      </figcaption>
    </figure>
  );
}
