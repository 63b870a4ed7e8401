/** What something that came from a file is called: the file's name in words. A name without an ending is that of a shape and stays as it is. */
export function titleOfFile(name: string, otherwise: string): string {
  const [, stem] = /^(.*)\.(?:svgz?|json|csv)$/i.exec(name) ?? [];
  return (stem === undefined ? name : stem.replace(/[-_]+/g, ' ')).trim() || otherwise;
}
