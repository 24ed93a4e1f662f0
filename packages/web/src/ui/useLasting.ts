import { useEffect, useState } from 'react';

/** Whether something has been so for a while; what passes at once is not shown. */
export function useLasting(isSo: boolean, milliseconds: number): boolean {
  const [hasLasted, setHasLasted] = useState(false);
  useEffect(() => {
    if (!isSo) {
      setHasLasted(false);
      return;
    }
    const timer = setTimeout(() => setHasLasted(true), milliseconds);
    return () => clearTimeout(timer);
  }, [isSo, milliseconds]);
  return hasLasted;
}
