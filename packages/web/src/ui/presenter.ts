import { create } from 'zustand';

interface PresenterState {
  /** Everything larger, for the last row of a classroom. */
  large: boolean;
}

const key = 'presenter';

export const usePresenter = create<PresenterState>(() => ({ large: localStorage.getItem(key) === 'true' }));

const apply = ({ large }: PresenterState) => {
  document.documentElement.dataset.presenter = String(large);
};
apply(usePresenter.getState());
usePresenter.subscribe((state) => {
  apply(state);
  localStorage.setItem(key, String(state.large));
});

export const togglePresenter = (): void => usePresenter.setState(({ large }) => ({ large: !large }));
