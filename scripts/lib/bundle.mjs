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
 * Bundles what pages load: the tag, and two modules named by their content, the renderer and the extras. Returns the
 * metafiles, for those who ask what is inside.
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
  mkdirSync(folder, { recursive: true });
  const chunk = async (name) => {
    const { outputFiles, metafile } = await build({
      ...common,
      entryPoints: [`packages/tag/src/${name}.ts`],
      format: 'esm',
      outfile: `${name}.js`,
    });
    const code = await smallest(outputFiles[0].text, true);
    const file = `${name}-${createHash('sha256').update(code).digest('hex').slice(0, 12)}.js`;
    for (const old of readdirSync(folder))
      if (old.startsWith(`${name}-`) && old !== file) rmSync(`${folder}/${old}`);
    writeFileSync(`${folder}/${file}`, code);
    return { file, metafile };
  };
  const [renderer, extras] = [await chunk('renderer'), await chunk('extras')];
  const tag = await build({
    ...common,
    entryPoints: ['packages/tag/src/main.ts'],
    format: 'iife',
    outfile: 'tag.js',
    define: { __RENDERER__: JSON.stringify(renderer.file), __EXTRAS__: JSON.stringify(extras.file) },
  });
  writeFileSync(`${folder}/tag.js`, await smallest(tag.outputFiles[0].text, false));
  writeFileSync(`${folder}/files.json`, JSON.stringify({ renderer: renderer.file, extras: extras.file }));
  return { tag: tag.metafile, renderer: renderer.metafile, extras: extras.metafile };
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

/** Builds the studio into apps/studio/dist. */
export async function bundleStudio() {
  const { build } = await import('vite');
  await build({ root: `${ROOT}/apps/studio`, logLevel: 'warn' });
}
