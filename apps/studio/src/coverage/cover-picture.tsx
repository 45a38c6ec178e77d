import { type Coverage, figure, type HowOften, shortFigure } from '@velarium/core';
import { saveFile } from '../ui/save-file.ts';
import { ToldError } from '../ui/told-error.ts';
import { CellSign, ShareSign } from './cover-grid.tsx';
import type { CoverRow } from './cover-rows.ts';

interface Picture {
  readonly title: string;
  readonly about: string;
  readonly coverage: Coverage;
  /** As they stand on the screen, folded or not. */
  readonly rows: readonly CoverRow[];
  readonly often: HowOften | undefined;
  readonly nameOf: (campaign: string) => string;
}

const [ROW, COLUMN, NAMES, HEAD, EDGE, TITLE] = [24, 44, 320, 170, 24, 54];
/** What its title and the line below it take. */
const LEAST_WIDTH = 780;
/** What a name's column holds at the size it is written in. */
const [PATH_LETTERS, NAME_LETTERS] = [40, 24];
/** Twice as fine as a screen, for slides and for print. */
const SHARPNESS = 2;
/** A canvas holds no more pixels a side, and nobody looks through more rows. */
const [MOST_PIXELS, MOST_ROWS] = [16_000, 600];

const short = (text: string, letters: number): string =>
  text.length > letters ? `${text.slice(0, letters - 1)}…` : text;

/** The map as one drawing: all of its rows and columns, also those that are out of sight. */
function CoverPicture({ title, about, coverage, rows, often, nameOf }: Picture) {
  const { campaigns } = coverage;
  const [width, height] = sizeOf({ coverage, rows });
  return (
    <svg
      xmlns="http://www.w3.org/2000/svg"
      role="img"
      aria-label={title}
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      fontFamily="ui-sans-serif, system-ui, sans-serif"
      fontSize="12"
      fill="var(--color-ink)"
    >
      <rect width={width} height={height} fill="var(--color-paper)" />
      <text x={EDGE} y={EDGE + 12} fontSize="17">
        {title}
      </text>
      <text x={EDGE} y={EDGE + 32} fill="var(--color-soft)">
        {about}
      </text>
      {campaigns.map(({ id }, n) => (
        <text
          key={id}
          transform={`translate(${EDGE + NAMES + n * COLUMN + COLUMN / 2 + 4} ${EDGE + TITLE + HEAD - 10}) rotate(-90)`}
        >
          {short(nameOf(id), NAME_LETTERS)}
        </text>
      ))}
      {rows.map((row, at) => (
        <g key={row.key} transform={`translate(${EDGE} ${EDGE + TITLE + HEAD + at * ROW})`}>
          <path d={`M0 0h${width - 2 * EDGE}`} stroke="var(--color-line)" />
          <text x={row.depth * 16} y={16}>
            {short(row.name, PATH_LETTERS - row.depth * 2)}
          </text>
          <text x={NAMES - 12} y={16} textAnchor="end" fill="var(--color-soft)">
            {figure(row.pages.reduce((sum, page) => sum + (coverage.pages[page]?.views ?? 0), 0))}
          </text>
          {campaigns.map(({ id }, n) => (
            <g key={id} transform={`translate(${NAMES + n * COLUMN} 0)`}>
              <Cell row={row} coverage={coverage} often={often} campaign={n} />
            </g>
          ))}
        </g>
      ))}
    </svg>
  );
}

interface CellProps extends Pick<Picture, 'coverage' | 'often'> {
  readonly row: CoverRow;
  readonly campaign: number;
}

function Cell({ row, coverage, often, campaign }: CellProps) {
  const times = often?.times(row.pages, campaign);
  const covered = coverage.covered(row.pages, campaign);
  if (times !== undefined && (times > 0 || covered > 0))
    return (
      <text x={COLUMN / 2} y={16} textAnchor="middle">
        {shortFigure(times)}
      </text>
    );
  const [only] = row.pages;
  return (
    <svg x={COLUMN / 2 - 8} y={4} width={16} height={16} aria-hidden="true">
      {row.pages.length === 1 && only !== undefined ? (
        <CellSign cell={coverage.cell(only, campaign)} />
      ) : (
        <ShareSign share={covered / Math.max(1, row.pages.length)} />
      )}
    </svg>
  );
}

const sizeOf = ({ coverage, rows }: Pick<Picture, 'coverage' | 'rows'>): readonly [number, number] => [
  Math.max(LEAST_WIDTH, 2 * EDGE + NAMES + coverage.campaigns.length * COLUMN),
  2 * EDGE + TITLE + HEAD + rows.length * ROW,
];

/** Gives the map as a picture (PNG) of what is unfolded; how many rows are not in it. Fails where the browser cannot draw it. */
export async function savePicture({ rows, ...map }: Picture): Promise<number> {
  const picture = { ...map, rows: rows.slice(0, MOST_ROWS) };
  const { renderToStaticMarkup } = await import('react-dom/server');
  const colours = getComputedStyle(document.documentElement);
  // A drawing by itself knows nothing of the studio's colours.
  const drawing = renderToStaticMarkup(<CoverPicture {...picture} />).replace(
    /var\((--color-[a-z-]+)\)/g,
    (_, name: string) => colours.getPropertyValue(name).trim(),
  );
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(drawing)}`;
  await image.decode();
  const [width, height] = sizeOf(picture);
  const scale = Math.min(SHARPNESS, MOST_PIXELS / Math.max(width, height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(width * scale);
  canvas.height = Math.round(height * scale);
  canvas.getContext('2d')?.drawImage(image, 0, 0, canvas.width, canvas.height);
  const file = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'));
  if (!file)
    throw new ToldError(
      'The picture could not be drawn',
      'It is too large for this browser. Fold some of its rows.',
    );
  saveFile(file, 'coverage.png');
  return rows.length - picture.rows.length;
}
