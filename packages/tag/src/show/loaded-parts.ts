import type * as Behind from '../behind.ts';
import type * as Form from '../form.ts';
import type * as Further from '../further.ts';

/** What was loaded beside the renderer, because a message asks for it. */
export interface LoadedParts {
  readonly treatPage?: (typeof Behind)['treatPage'];
  readonly form?: (typeof Form)['form'];
  readonly further?: (typeof Further)['further'];
}
