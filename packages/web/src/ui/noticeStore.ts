import { create } from 'zustand';

export interface Notice {
  id: number;
  text: string;
  kind: 'fault' | 'news';
  action?: { label: string; run: () => void };
}

interface NoticeState {
  notices: Notice[];
  tell(notice: Omit<Notice, 'id'>): void;
  dismiss(id: number): void;
}

let last = 0;

/** Short messages at the foot of the page: faults, and news that can be undone. */
export const useNotices = create<NoticeState>((set) => ({
  notices: [],
  tell: (notice) =>
    set(({ notices }) => ({
      notices: [...notices.filter(({ text }) => text !== notice.text), { ...notice, id: ++last }].slice(-3),
    })),
  dismiss: (id) => set(({ notices }) => ({ notices: notices.filter((notice) => notice.id !== id) })),
}));

export const tell = (notice: Omit<Notice, 'id'>): void => useNotices.getState().tell(notice);

/** Takes away what offers to take back a step that has been taken back by other means. */
export const withdrawOffers = (): void =>
  useNotices.setState(({ notices }) => ({
    notices: notices.filter(({ action }) => action?.label !== 'Undo'),
  }));
