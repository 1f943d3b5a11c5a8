/** The key that does the same. */
export function KeyHint({ children }: { children: string }) {
  return (
    <kbd aria-hidden className="figure rounded border border-current px-1 text-[10px] leading-4">
      {children}
    </kbd>
  );
}
