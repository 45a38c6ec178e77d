import type { OwnTemplate, SaveBlock, SavedBlock, SaveTemplate } from '@velarium/contract';
import type { DataSource, EntityManager } from 'typeorm';
import { notFound, ProblemError } from '../infra/problem.ts';
import { OwnTemplateEntity, SavedBlockEntity } from './entities.ts';
import { whenTaken } from './when-taken.ts';

/** Blocks kept by name. Callers have made sure that the site is the workspace's. */
export function createSavedBlocks(db: DataSource) {
  const blocks = db.getRepository(SavedBlockEntity);
  const usesOf = async (siteId: string): Promise<Map<string, string[]>> => {
    const rows: { name: string; saved: string }[] = await db.query(
      `SELECT DISTINCT name, found #>> '{}' AS saved FROM campaign, jsonb_path_query(draft, '$.**.saved') AS found
        WHERE site_id = $1 ORDER BY name`,
      [siteId],
    );
    const uses = new Map<string, string[]>();
    for (const { name, saved } of rows) uses.set(saved, [...(uses.get(saved) ?? []), name]);
    return uses;
  };
  return {
    async list(siteId: string): Promise<SavedBlock[]> {
      const rows = await blocks.find({ where: { siteId }, order: { name: 'ASC' } });
      const uses = await usesOf(siteId);
      return rows.map(
        ({ id, name, block }) => ({ id, name, block, usedBy: uses.get(id) ?? [] }) as SavedBlock,
      );
    },
    /** Keeps a block, or changes the one with this id wherever it is used. */
    async save(siteId: string, { name, block }: SaveBlock, id?: string): Promise<SavedBlock> {
      if (id !== undefined && !(await blocks.existsBy({ id, siteId }))) throw notFound('saved block');
      const row = await whenTaken('saved_block_name', name, () =>
        blocks.save({ siteId, name, block, ...(id ? { id } : {}) }),
      );
      return { id: row.id, name, block, usedBy: (await usesOf(siteId)).get(row.id) ?? [] };
    },
    async remove(siteId: string, id: string): Promise<void> {
      const [inUse] = (await usesOf(siteId)).get(id) ?? [];
      if (inUse !== undefined) {
        throw new ProblemError(
          409,
          'in-use',
          'This saved block is in use',
          `The campaign “${inUse}” uses it. Detach it there first.`,
        );
      }
      const { affected } = await blocks.delete({ id, siteId });
      if (!affected) throw notFound('saved block');
    },
    async reader(siteId: string, manager: EntityManager = db.manager) {
      const rows = await manager.getRepository(SavedBlockEntity).findBy({ siteId });
      return (id: string) => rows.find((row) => row.id === id)?.block;
    },
  };
}

/** Messages kept to begin from. */
export function createOwnTemplates(db: DataSource) {
  const templates = db.getRepository(OwnTemplateEntity);
  return {
    async list(siteId: string): Promise<OwnTemplate[]> {
      const rows = await templates.find({ where: { siteId }, order: { name: 'ASC' } });
      return rows.map(({ id, name, message }) => ({ id, name, message }));
    },
    async find(siteId: string, id: string): Promise<OwnTemplate | undefined> {
      return (await templates.findOneBy({ siteId, id })) ?? undefined;
    },
    async add(siteId: string, { name, message }: SaveTemplate): Promise<OwnTemplate> {
      const row = await whenTaken('own_template_name', name, () => templates.save({ siteId, name, message }));
      return { id: row.id, name, message };
    },
    async remove(siteId: string, id: string): Promise<void> {
      const { affected } = await templates.delete({ id, siteId });
      if (!affected) throw notFound('template');
    },
  };
}
