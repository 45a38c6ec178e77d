import type { PageGroup } from '@velarium/contract';
import { type DataSource, type EntityManager, EntitySchema } from 'typeorm';
import { notFound, ProblemError } from '../infra/problem.ts';

interface PageGroupRow extends PageGroup {
  siteId: string;
}
export const PageGroupEntity = new EntitySchema<PageGroupRow>({
  name: 'PageGroup',
  tableName: 'page_group',
  columns: {
    id: { type: 'uuid', primary: true, generated: 'uuid' },
    siteId: { type: 'uuid', name: 'site_id' },
    name: { type: 'text' },
    rules: { type: 'jsonb' },
  },
});

/** The named sets of page rules of a site. Callers have made sure that the site is the workspace's. */
export function createPageGroups(db: DataSource) {
  const groups = db.getRepository(PageGroupEntity);
  const plain = ({ id, name, rules }: PageGroupRow): PageGroup => ({ id, name, rules });
  return {
    async list(siteId: string, manager: EntityManager = db.manager): Promise<PageGroup[]> {
      const rows = await manager
        .getRepository(PageGroupEntity)
        .find({ where: { siteId }, order: { name: 'ASC' } });
      return rows.map(plain);
    },
    /** Makes a group, or changes the one with this id. */
    async save(siteId: string, group: Omit<PageGroup, 'id'>, id?: string): Promise<PageGroup> {
      if (id !== undefined && !(await groups.existsBy({ id, siteId }))) throw notFound('page group');
      try {
        return plain(await groups.save({ ...group, siteId, ...(id ? { id } : {}) }));
      } catch (error) {
        if (!String(error).includes('page_group_name')) throw error;
        throw new ProblemError(
          409,
          'name-taken',
          'This name is taken',
          `Another page group of this site is called “${group.name}”. Choose another name.`,
          [{ path: 'name', message: 'is taken' }],
        );
      }
    },
    async remove(siteId: string, id: string): Promise<void> {
      const { affected } = await groups.delete({ id, siteId });
      if (!affected) throw notFound('page group');
    },
  };
}
