/** Entry of the renderer's own bundle, loaded when a message comes near. */
export { renderMessage } from '@velarium/render';
