import { DataTypes, type QueryInterface, type Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';

interface Migration {
  readonly name: string;
  up(queries: QueryInterface): Promise<void>;
}

/** Numbered steps of the database; never change one that has shipped, add another. */
const MIGRATIONS: readonly Migration[] = [
  {
    name: '001-pieces',
    async up(queries) {
      await queries.createTable('pieces', {
        id: { type: DataTypes.STRING(64), primaryKey: true },
        name: { type: DataTypes.STRING(200), allowNull: false },
        revision: { type: DataTypes.INTEGER, allowNull: false },
        document: { type: DataTypes.TEXT, allowNull: false },
        createdAt: { type: DataTypes.DATE, allowNull: false },
        updatedAt: { type: DataTypes.DATE, allowNull: false },
        deletedAt: { type: DataTypes.DATE, allowNull: true },
      });
      await queries.addIndex('pieces', ['deletedAt', 'updatedAt']);
    },
  },
  {
    name: '002-assets-and-drawer',
    async up(queries) {
      await queries.createTable('assets', {
        id: { type: DataTypes.STRING(64), primaryKey: true },
        name: { type: DataTypes.STRING(200), allowNull: false },
        mediaType: { type: DataTypes.STRING(40), allowNull: false },
        bytes: { type: DataTypes.BLOB, allowNull: false },
        createdAt: { type: DataTypes.DATE, allowNull: false },
      });
      await queries.createTable('drawer', {
        id: { type: DataTypes.STRING(64), primaryKey: true },
        name: { type: DataTypes.STRING(200), allowNull: false },
        svg: { type: DataTypes.TEXT, allowNull: false },
        createdAt: { type: DataTypes.DATE, allowNull: false },
      });
      await queries.addIndex('drawer', ['createdAt']);
    },
  },
];

/** Runs the steps that this database has not had yet. */
export async function migrate(sequelize: Sequelize): Promise<void> {
  const umzug = new Umzug({
    migrations: MIGRATIONS.map(({ name, up }) => ({
      name,
      up: ({ context }: { context: QueryInterface }) => up(context),
    })),
    context: sequelize.getQueryInterface(),
    storage: new SequelizeStorage({ sequelize }),
    logger: undefined,
  });
  await umzug.up();
}
