import { createContext, useContext } from 'react';
import { type StoreApi } from 'zustand/vanilla';
import { useStore } from 'zustand';
import { type NotebookSession } from './notebookSession';

const NotebookContext = createContext<NotebookSession | null>(null);
export const NotebookProvider = NotebookContext;

export function useNotebook(): NotebookSession {
  const notebook = useContext(NotebookContext);
  if (notebook === null) throw new Error('there is no notebook around this');
  return notebook;
}

type State = NotebookSession['state'] extends StoreApi<infer S> ? S : never;
export const useNotebookState = <T,>(select: (state: State) => T): T => useStore(useNotebook().state, select);
