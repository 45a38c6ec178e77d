/** Entry of the bundle that draws what most messages do not use. */
export { further } from '@velarium/render/further';
