/** SQL that is true of a column that names a process whose lease has not run out. */
export const livesIn = (column: string): string =>
  `exists (select 1 from server_process p where p.id = ${column} and p."leaseUntil" >= clock_timestamp())`;
