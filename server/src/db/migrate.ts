import { DataTypes, type QueryInterface, type Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';

interface Migration {
  readonly name: string;
  up(queries: QueryInterface): Promise<void>;
}

/** Tables are made only where they are not there yet, and so are indexes: a step that was once cut off half way can be done again. */
async function addIndex(queries: QueryInterface, table: string, columns: readonly string[]): Promise<void> {
  const name = [table, ...columns.map((column) => column.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`))];
  await queries.sequelize.query(
    `CREATE INDEX IF NOT EXISTS \`${name.join('_')}\` ON \`${table}\` (${columns.map((column) => `\`${column}\``).join(', ')})`,
  );
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
      await addIndex(queries, 'pieces', ['deletedAt', 'updatedAt']);
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
      await addIndex(queries, 'drawer', ['createdAt']);
    },
  },
  {
    name: '003-easings',
    async up(queries) {
      await queries.createTable('easings', {
        id: { type: DataTypes.STRING(64), primaryKey: true },
        name: { type: DataTypes.STRING(200), allowNull: false },
        easing: { type: DataTypes.TEXT, allowNull: false },
        createdAt: { type: DataTypes.DATE, allowNull: false },
      });
    },
  },
  {
    name: '004-outputs',
    async up(queries) {
      await queries.createTable('outputs', {
        id: { type: DataTypes.STRING(64), primaryKey: true },
        order: { type: DataTypes.TEXT, allowNull: false },
        piece: { type: DataTypes.TEXT, allowNull: false },
        result: { type: DataTypes.TEXT, allowNull: true },
        mediaType: { type: DataTypes.STRING(80), allowNull: true },
        bytes: { type: DataTypes.BLOB, allowNull: true },
        wanted: { type: DataTypes.BLOB, allowNull: true },
        found: { type: DataTypes.BLOB, allowNull: true },
        createdAt: { type: DataTypes.DATE, allowNull: false },
      });
      await addIndex(queries, 'outputs', ['createdAt']);
    },
  },
];

/**
 * Runs the steps that this database has not had yet, all of them or none. Tables, indexes and the list of steps done are written in one
 * transaction, so that a process that is killed leaves the database as it was. Nobody else may use the connection meanwhile.
 */
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
  await sequelize.query('BEGIN IMMEDIATE');
  try {
    await umzug.up();
    await sequelize.query('COMMIT');
  } catch (error) {
    await sequelize.query('ROLLBACK').catch(() => {});
    throw error;
  }
}
