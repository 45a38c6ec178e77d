import { ProblemError } from '../infra/problem.ts';

/** Tells a name that another of the site has in words a person can act on. */
export async function whenTaken<Result>(
  constraint: string,
  name: string,
  work: () => Promise<Result>,
): Promise<Result> {
  try {
    return await work();
  } catch (error) {
    if (!String(error).includes(constraint)) throw error;
    throw new ProblemError(
      409,
      'name-taken',
      'This name is taken',
      `Another one of this site is called “${name}”. Choose another name.`,
      [{ path: 'name', message: 'is taken' }],
    );
  }
}
