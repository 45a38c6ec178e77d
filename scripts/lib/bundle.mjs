import { createHash } from 'node:crypto';
import { mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';
import { ROOT } from './root.mjs';

/** Bundles our own packages and leaves everything of npm to `node_modules`. */
const ownPackagesOnly = {
  name: 'own-packages-only',
  setup(build) {
    build.onResolve({ filter: /^[^./]/ }, ({ path, kind }) =>
      kind === 'entry-point' || path.startsWith('@velarium/') ? undefined : { external: true },
    );
  },
};

/** Threads of a Node program, each a file of its own beside it. */
const THREADS = { server: ['people/export-thread'] };

/** Bundles one of the Node programs: apps/NAME/src/main.ts to apps/NAME/dist/main.js, and its threads beside it. */
export async function bundleProgram(name) {
  const { build } = await import('esbuild');
  await build({
    absWorkingDir: ROOT,
    entryPoints: ['main', ...(THREADS[name] ?? [])].map((file) => `apps/${name}/src/${file}.ts`),
    entryNames: '[name]',
    outdir: `apps/${name}/dist`,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    sourcemap: true,
    logLevel: 'error',
    plugins: [ownPackagesOnly],
  });
}

/**
 * Property names that only the bundles themselves see, made short in all of them alike. Never a name that is stored,
 * sent, exported from a bundle, or the browser's own.
 */
const INNER_NAMES = [
  ...['ticksMs', 'wallMs', 'pageVisibleMs', 'sessionVisibleMs', 'stillMs', 'inMs', 'inPageView', 'inSession'],
  ...['onOpened', 'leftOf', 'eachLeft', 'onGone', 'giveUp', 'verdictOf', 'setVisible', 'onActive', 'onFact'],
  ...['rearm', 'feed', 'remaining', 'isAllowed', 'candidates', 'pageKey', 'remembers', 'isVisible', 'facts'],
  ...['isMetBy', 'isInAudience', 'scheduleVerdict', 'notBeforeMs', 'isAmong', 'ownHost', 'joinMemory'],
  ...['browserOf', 'systemOf', 'forgetPage', 'personalFacts', 'setLive', 'isKept'],
  ...['fallback', 'showNow', 'restart', 'topics', 'outbox', 'isPreview', 'startAgain', 'storage'],
  ...['hasCoarsePointer', 'extras', 'isStill', 'onClose', 'onAction', 'onSend', 'showStep'],
  ...[
    'drawForm',
    'submitAnswers',
    'drawBlock',
    'drawField',
    'drawSum',
    'pictureBase',
    'factOf',
    'firstSeenMs',
    'onUndo',
    'countOf',
  ],
  ...['isPlayed', 'loadPart', 'settle', 'came', 'yielded', 'latch', 'deepest', 'windowHeight', 'pageHeight'],
  ...[
    'stayed',
    'manifestFor',
    'counts',
    'seenPaths',
    'seenWholes',
    'elementHeight',
    'seenHeight',
    'isMouse',
    'isOut',
    'pageWidth',
    'recorded',
    'verdicts',
    'nowMs',
    'stop',
    'tell',
    'read',
    'allow',
    'write',
    'script',
    'learn',
    'pixels',
    'percent',
    'held',
    'change',
    'near',
    'hand',
    'keep',
    'active',
    'renderer',
    'isHeld',
    'scrolled',
    'look',
    'touch',
    'reconsider',
    'createToldFacts',
    'underOneFloor',
    'shareSession',
    'giveConsent',
    'onExitByTouch',
    'isAmongPlain',
  ],
];

/**
 * Bundles what pages load: the tag, and the modules it loads when they are needed, named by the content of all of them. Returns the
 * metafiles, for those who ask what is inside.
 */
export async function bundleTag() {
  const { build } = await import('esbuild');
  const folder = `${ROOT}/packages/tag/dist`;
  const common = {
    absWorkingDir: ROOT,
    mangleProps: new RegExp(`^(${INNER_NAMES.join('|')})$`),
    bundle: true,
    minify: true,
    target: 'es2020',
    write: false,
    metafile: true,
    logLevel: 'error',
    legalComments: 'none',
  };
  mkdirSync(folder, { recursive: true });
  let mangleCache = {};
  const chunk = async (name) => {
    const { outputFiles, metafile, ...built } = await build({
      ...common,
      mangleCache,
      entryPoints: [`packages/tag/src/${name}.ts`],
      format: 'esm',
      outfile: `${name}.js`,
    });
    mangleCache = built.mangleCache;
    return { code: await smallest(outputFiles[0].text, true), metafile };
  };
  const bundles = {};
  for (const name of [
    'renderer',
    'form',
    'behind',
    'further',
    'letters',
    'extras',
    'rare',
    'preview',
    'verdicts',
    'within',
  ])
    bundles[name] = await chunk(name);
  // One name for all of a release: a hash for each would cost every page the bytes of all.
  const hash = createHash('sha256');
  for (const { code } of Object.values(bundles)) hash.update(code);
  const release = hash.digest('hex').slice(0, 8);
  const files = Object.fromEntries(Object.keys(bundles).map((name) => [name, `${name}-${release}.js`]));
  for (const old of readdirSync(folder)) if (old.endsWith('.js')) rmSync(`${folder}/${old}`);
  for (const [name, { code }] of Object.entries(bundles)) writeFileSync(`${folder}/${files[name]}`, code);
  const tag = await build({
    ...common,
    mangleCache,
    entryPoints: ['packages/tag/src/main.ts'],
    format: 'iife',
    outfile: 'tag.js',
    define: { __RELEASE__: JSON.stringify(release) },
  });
  writeFileSync(`${folder}/tag.js`, await smallest(tag.outputFiles[0].text, false));
  writeFileSync(`${folder}/files.json`, JSON.stringify(files));
  return {
    tag: tag.metafile,
    ...Object.fromEntries(Object.entries(bundles).map(([name, { metafile }]) => [name, metafile])),
  };
}

/** A second pass over a bundle: another minifier finds what the first leaves, about a twentieth on the wire. */
async function smallest(code, isModule) {
  const { minify } = await import('@swc/core');
  const result = await minify(code, {
    module: isModule,
    ecma: 2020,
    compress: { passes: 3, toplevel: true, ecma: 2020, unsafe_arrows: true },
    mangle: { toplevel: true },
  });
  return result.code;
}

/** What is small already, and what would not get smaller. */
const COMPRESSIBLE = /\.(js|css|html|svg|json)$/;
const LEAST_BYTES = 1024;

/** Builds the studio into apps/studio/dist, every file of it compressed once beside itself. */
export async function bundleStudio() {
  const { build } = await import('vite');
  // Whoever builds may be a test runner, whose NODE_ENV would put the slow and wordy React of developers into it.
  const { NODE_ENV } = process.env;
  process.env.NODE_ENV = 'production';
  try {
    await build({ root: `${ROOT}/apps/studio`, logLevel: 'warn' });
  } finally {
    if (NODE_ENV === undefined) delete process.env.NODE_ENV;
    else process.env.NODE_ENV = NODE_ENV;
  }
  const folder = `${ROOT}/apps/studio/dist`;
  for (const name of readdirSync(folder, { recursive: true })) {
    const file = `${folder}/${name}`;
    if (!COMPRESSIBLE.test(name) || statSync(file).size < LEAST_BYTES) continue;
    const bytes = readFileSync(file);
    const quality = { params: { [constants.BROTLI_PARAM_QUALITY]: 9 } };
    writeFileSync(`${file}.br`, brotliCompressSync(bytes, quality));
    writeFileSync(`${file}.gz`, gzipSync(bytes));
  }
}
