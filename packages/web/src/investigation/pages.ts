import { type InvestigationSession } from './investigationSession';
import { type LoadedPage, loadedPage } from '../ui/loadedPage';

/** A page of an investigation: all of them stand on the one session that the layout holds. */
export interface InvestigationPage {
  /** Its place under the address of the investigation; '' is the one that opens first. */
  path: string;
  /** Further places below it, as the router writes them, which the same page shows. */
  below: readonly string[];
  title: string;
  page: LoadedPage;
  /** Fetches what the page will ask for, while the page is still being laid out. What fails here is asked for, and said, by the page. */
  prepare?(session: InvestigationSession): Promise<void>;
}

/** In the order of their tabs. */
export const investigationPages: readonly InvestigationPage[] = [
  { path: '', below: [], title: 'Bench', page: loadedPage(() => import('./BenchPage')) },
  {
    path: 'trials',
    below: [],
    title: 'Trials',
    page: loadedPage(() => import('../trials/TrialsPage')),
    prepare: async (session) => (await session.trials()).enter(),
  },
  {
    path: 'notebook',
    below: [],
    title: 'Notebook',
    page: loadedPage(() => import('../notebook/NotebookPage')),
  },
  {
    path: 'stage',
    below: [':apparatus'],
    title: 'Stage',
    page: loadedPage(() => import('../stage/StagePage')),
  },
];

/** The page at a place under the address of an investigation. @throws Error where there is none */
export function pageCalled(path: string): InvestigationPage {
  const found = investigationPages.find((one) => one.path === path);
  if (found === undefined) throw new Error(`an investigation has no page “${path}”`);
  return found;
}

/** The page that an address shows; the first where it names none. @param address as in /investigations/…/stage */
export const pageAt = (address: string): InvestigationPage => {
  const [, , , place = ''] = address.split('/');
  return investigationPages.find(({ path }) => path === place) ?? investigationPages[0];
};
