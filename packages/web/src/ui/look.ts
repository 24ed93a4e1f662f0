import { usePresenter } from './presenter';
import { useScheme } from './scheme';

/** Changes wherever a canvas has to be drawn anew, since its letters or its colours are others. */
export function useLook(): string {
  const large = usePresenter((state) => state.large);
  const { isDark, isStrong } = useScheme();
  return `${large ? 'large' : 'usual'} ${isDark ? 'dark' : 'light'} ${isStrong ? 'strong' : 'soft'}`;
}
