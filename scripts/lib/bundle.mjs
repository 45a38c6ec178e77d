import { createHash } from 'node:crypto';
import { mkdirSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
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

/** Bundles one of the Node programs: apps/NAME/src/main.ts to apps/NAME/dist/main.js. */
export async function bundleProgram(name) {
  const { build } = await import('esbuild');
  await build({
    absWorkingDir: ROOT,
    entryPoints: [`apps/${name}/src/main.ts`],
    outfile: `apps/${name}/dist/main.js`,
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
 * Bundles what pages load: the tag, and the renderer as a module named by its content. Returns the metafiles, for
 * those who ask what is inside.
 */
export async function bundleTag() {
  const { build } = await import('esbuild');
  const folder = `${ROOT}/packages/tag/dist`;
  const common = {
    absWorkingDir: ROOT,
    bundle: true,
    minify: true,
    target: 'es2020',
    write: false,
    metafile: true,
    logLevel: 'error',
    legalComments: 'none',
  };
  const renderer = await build({
    ...common,
    entryPoints: ['packages/tag/src/renderer.ts'],
    format: 'esm',
    outfile: 'renderer.js',
  });
  const code = renderer.outputFiles[0].contents;
  const rendererName = `renderer-${createHash('sha256').update(code).digest('hex').slice(0, 12)}.js`;
  const tag = await build({
    ...common,
    entryPoints: ['packages/tag/src/main.ts'],
    format: 'iife',
    outfile: 'tag.js',
    define: { __RENDERER__: JSON.stringify(rendererName) },
  });
  mkdirSync(folder, { recursive: true });
  for (const old of readdirSync(folder))
    if (/^renderer-/.test(old) && old !== rendererName) rmSync(`${folder}/${old}`);
  writeFileSync(`${folder}/${rendererName}`, code);
  writeFileSync(`${folder}/tag.js`, tag.outputFiles[0].contents);
  writeFileSync(`${folder}/files.json`, JSON.stringify({ renderer: rendererName }));
  return { tag: tag.metafile, renderer: renderer.metafile };
}

/** Builds the studio into apps/studio/dist. */
export async function bundleStudio() {
  const { build } = await import('vite');
  await build({ root: `${ROOT}/apps/studio`, logLevel: 'warn' });
}
