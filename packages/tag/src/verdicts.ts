/** Entry of the bundle for a page that wants to hear what each campaign comes to. */
export { tellVerdicts } from './preview/tell-verdicts.ts';
