import { useCallback, useRef, useState, type ComponentType } from "react";

/**
 * A component that is loaded when somebody reaches for it. Until it is there, and where it can't be loaded, what
 * stands in its place stays as it is, with the focus.
 * @param load called at most once at a time
 */
export function useReached<Props>(load: () => Promise<ComponentType<Props>>) {
  const [Reached, setReached] = useState<ComponentType<Props> | null>(null);
  const loading = useRef<Promise<ComponentType<Props>> | null>(null);
  const latest = useRef(load);
  const prepare = useCallback(async () => {
    loading.current ??= latest.current().catch((error: unknown) => {
      loading.current = null;
      throw error;
    });
    return loading.current;
  }, []);
  /** Shows it as soon as it is there. */
  const reach = useCallback(
    () =>
      void prepare().then(
        (loaded) => setReached(() => loaded),
        () => undefined,
      ),
    [prepare],
  );
  return { Reached, reach, prepare: useCallback(() => void prepare().catch(() => undefined), [prepare]) };
}
