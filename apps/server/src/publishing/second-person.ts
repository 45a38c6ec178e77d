import type { EntityManager } from 'typeorm';
import { ProblemError } from '../infra/problem.ts';

const secondPerson = () =>
  new ProblemError(
    403,
    'second-person',
    'A second person must agree first',
    'In this workspace nothing is launched before somebody else has agreed to it. Ask for that in the launch of the draft; what is to come back is brought back as a draft first.',
  );

/** Refuses where a second person must agree to a launch. Asked of the database: who acts may have signed in before it was so. */
export async function assertAlone(manager: Pick<EntityManager, 'query'>, workspaceId: string): Promise<void> {
  const [asking] = await manager.query('SELECT FROM workspace WHERE id = $1 AND asks_second', [workspaceId]);
  if (asking) throw secondPerson();
}
