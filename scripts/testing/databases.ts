import pg from 'pg';

/** The address of another database of a cluster. */
export const databaseIn = (cluster: string, name: string): string => cluster.replace(/\/[^/]*$/, `/${name}`);

/** Lets a cluster do something to a whole database: make one, or drop it. */
export async function onCluster(cluster: string, query: string): Promise<void> {
  const client = new pg.Client({ connectionString: cluster });
  await client.connect();
  await client.query(query).finally(() => client.end());
}
