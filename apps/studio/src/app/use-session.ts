import { useQuery } from '@tanstack/react-query';
import { sessionQuery } from '../api/queries.ts';

/** Who is signed in. Only used below the shell, which renders nothing until somebody is. */
export function useSession() {
  const { data } = useQuery(sessionQuery);
  return data;
}

/** Whether the signed-in member may change things. */
export function useCanEdit(): boolean {
  const session = useSession();
  return session !== undefined && session.role !== 'viewer';
}
