import { drawForm } from '@velarium/render/form';
import { submitAnswers } from './send/submit.ts';

/** Entry of the bundle that messages with a form load. */
export const form = { drawForm, submitAnswers };
