/** Entry of the bundle for messages that hold the page behind still, or make room in it. */
export { treatPage } from '@velarium/render/behind';
