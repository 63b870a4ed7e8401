/** A database of the browser with tables of records that have a field `key`. */
export class BrowserDatabase {
  private opening: Promise<IDBDatabase> | undefined;

  /** `factory` is undefined where the browser keeps no databases. */
  constructor(
    private readonly factory: IDBFactory | undefined,
    private readonly name: string,
    private readonly tables: readonly string[],
  ) {}

  /** Resolves when the work is on the disk. @throws when there is no room or no database */
  async write(table: string, work: (store: IDBObjectStore) => void): Promise<void> {
    const database = await this.open();
    const transaction = database.transaction(table, 'readwrite', { durability: 'strict' });
    const done = new Promise<void>((resolve, reject) => {
      transaction.oncomplete = () => resolve();
      transaction.onabort = () => reject(transaction.error ?? new Error('The browser could not keep a copy.'));
    });
    work(transaction.objectStore(table));
    // A page that is going away does not wait for answers.
    transaction.commit?.();
    await done;
  }

  /** What a request for records of a table gives. @throws when there is no database */
  async read<T>(table: string, ask: (store: IDBObjectStore) => IDBRequest<T>): Promise<T> {
    const database = await this.open();
    const request = ask(database.transaction(table).objectStore(table));
    return new Promise((resolve, reject) => {
      request.onsuccess = () => resolve(request.result);
      request.onerror = () => reject(request.error);
    });
  }

  private open(): Promise<IDBDatabase> {
    this.opening ??= new Promise((resolve, reject) => {
      if (!this.factory) {
        reject(new Error('This browser keeps no databases.'));
        return;
      }
      const request = this.factory.open(this.name, 1);
      request.onupgradeneeded = () => {
        for (const table of this.tables) request.result.createObjectStore(table, { keyPath: 'key' });
      };
      request.onsuccess = () => resolve(request.result);
      request.onerror = () => reject(request.error);
    });
    // One that failed may be there the next time.
    this.opening.catch(() => {
      this.opening = undefined;
    });
    return this.opening;
  }
}
