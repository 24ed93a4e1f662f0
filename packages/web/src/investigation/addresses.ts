/** The address of a page of an investigation; the bench has no path of its own. */
export const addressOf = (id: string, { path }: { path: string }): string =>
  `/investigations/${id}${path === '' ? '' : `/${path}`}`;
