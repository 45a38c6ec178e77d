import { fileURLToPath } from 'node:url';
import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

/** Where the first page begins: the studio itself, and signing in. */
const FIRST = ['src/main.tsx', 'src/account/sign-in-page.tsx'].map((file) =>
  fileURLToPath(new URL(file, import.meta.url)),
);

interface Modules {
  getModuleInfo(id: string): { readonly importedIds: readonly string[] } | null;
}

/** Every module that is loaded with these. */
function loadedWith(ids: readonly string[], modules: Modules): ReadonlySet<string> {
  const found = new Set<string>();
  const add = (id: string) => {
    if (found.has(id)) return;
    found.add(id);
    for (const one of modules.getModuleInfo(id)?.importedIds ?? []) add(one);
  };
  for (const id of ids) add(id);
  return found;
}
let first: ReadonlySet<string> | undefined;

export default defineConfig({
  plugins: [react(), tailwindcss()],
  // For work on the studio alone: the API of a Velarium started with `npm start`.
  server: { proxy: { '/api': 'http://127.0.0.1:4400' } },
  build: {
    target: 'es2022',
    assetsInlineLimit: 0,
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            // What many places use comes in one file, for each request costs a way to the server and back; but not with
            // the first page.
            {
              debugName: 'shared',
              includeDependenciesRecursively: false,
              name: (id, modules) => {
                first ??= loadedWith(FIRST, modules);
                return first.has(id) ? null : 'shared';
              },
              minShareCount: 7,
            },
          ],
        },
      },
    },
  },
});
