import { type CoverageQuestion, coverCells } from '@velarium/core';

addEventListener('message', ({ data }: MessageEvent<CoverageQuestion>) => postMessage(coverCells(data)));
