/** Entry of the bundle for documents within another: whether the tag works there. */
export { worksHere } from './page/works-here.ts';
