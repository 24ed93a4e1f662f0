import { createContext, useContext } from 'react';
import { useStore } from 'zustand';
import { type StoreApi } from 'zustand/vanilla';
import { type GuideSession } from './guideSession';

const GuideContext = createContext<GuideSession | null>(null);
export const GuideProvider = GuideContext;

export function useGuide(): GuideSession {
  const guide = useContext(GuideContext);
  if (guide === null) throw new Error('there is no guide around this');
  return guide;
}

type State = GuideSession['state'] extends StoreApi<infer S> ? S : never;
export const useGuideState = <T,>(select: (state: State) => T): T => useStore(useGuide().state, select);
