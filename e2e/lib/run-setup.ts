import { globalSetup } from './global-setup.ts';

// The runner takes a default export and nothing else.
// biome-ignore lint/style/noDefaultExport: see above
export default globalSetup;
