import type { Look, LookStyle, SaveLook } from '@velarium/contract';
import { LOOKS, PLAIN_LOOK } from '@velarium/core';
import type { DataSource, EntityManager } from 'typeorm';
import { notFound, ProblemError } from '../infra/problem.ts';
import { LookEntity, type LookRow } from './entities.ts';
import { whenTaken } from './when-taken.ts';

const plain = ({ id, name, isDefault, style }: LookRow): Look => ({ id, name, isDefault, style });

/** The Looks of a site. Callers have made sure that the site is the workspace's. */
export function createLooks(db: DataSource) {
  const looks = db.getRepository(LookEntity);
  const find = async (siteId: string, id: string): Promise<LookRow> => {
    const row = await looks.findOneBy({ id, siteId });
    if (!row) throw notFound('Look');
    return row;
  };
  return {
    async list(siteId: string): Promise<Look[]> {
      return (await looks.find({ where: { siteId }, order: { createdAt: 'ASC', id: 'ASC' } })).map(plain);
    },
    /** Gives a new site the Looks to begin from, the named one as its own. What is there already stays. */
    async begin(siteId: string, presetId = LOOKS[0]?.id): Promise<void> {
      for (const { id, name, style } of LOOKS)
        await looks
          .createQueryBuilder()
          .insert()
          .values({ siteId, name, style, isDefault: id === presetId })
          .orIgnore()
          .execute();
    },
    /** The same for the sites of an installation that was there before every site began with Looks. */
    async beginMissing(): Promise<void> {
      const bare: { id: string }[] = await db.query(
        'SELECT id FROM site WHERE NOT EXISTS (SELECT FROM look WHERE look.site_id = site.id)',
      );
      for (const { id } of bare) await this.begin(id);
    },
    async create(siteId: string, { name, style }: SaveLook): Promise<Look> {
      return whenTaken('look_name', name, async () =>
        plain(await looks.save({ siteId, name, style, isDefault: false })),
      );
    },
    async save(siteId: string, id: string, { name, style }: SaveLook): Promise<Look> {
      const row = await find(siteId, id);
      return whenTaken('look_name', name, async () => plain(await looks.save({ ...row, name, style })));
    },
    async makeDefault(siteId: string, id: string): Promise<Look[]> {
      await find(siteId, id);
      await db.transaction(async (manager) => {
        await manager.getRepository(LookEntity).update({ siteId }, { isDefault: false });
        await manager.getRepository(LookEntity).update({ siteId, id }, { isDefault: true });
      });
      return this.list(siteId);
    },
    async remove(siteId: string, id: string): Promise<void> {
      const { isDefault } = await find(siteId, id);
      if (isDefault) {
        throw new ProblemError(
          409,
          'look-default',
          'The site’s own Look stays',
          'Make another Look the site’s own first.',
        );
      }
      await looks.delete({ id, siteId });
    },
    /** Which style a message is drawn in: its own Look's, else the site's, else plain linen. */
    async reader(
      siteId: string,
      manager: EntityManager = db.manager,
    ): Promise<(lookId: string | null) => LookStyle> {
      const rows = await manager.getRepository(LookEntity).findBy({ siteId });
      const own = rows.find(({ isDefault }) => isDefault)?.style ?? PLAIN_LOOK;
      return (lookId) => rows.find(({ id }) => id === lookId)?.style ?? own;
    },
  };
}
