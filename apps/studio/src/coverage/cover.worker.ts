import {
  type CoverageNote,
  type CoverageQuestion,
  coverageNotes,
  coverCells,
  coverSite,
  type NotesInput,
} from '@velarium/core';

/** What a worker is asked: what can appear where and, where notes are wanted, what is worth a look. */
export interface CoverTask {
  readonly question: CoverageQuestion;
  readonly notes?: Omit<NotesInput, 'coverage'>;
}
export interface CoverAnswer {
  readonly cells: Uint8Array;
  readonly notes: readonly CoverageNote[];
}

addEventListener('message', ({ data: { question, notes } }: MessageEvent<CoverTask>) => {
  const cells = coverCells(question);
  postMessage({
    cells,
    notes: notes ? coverageNotes({ ...notes, coverage: coverSite(question, cells) }) : [],
  } satisfies CoverAnswer);
});
