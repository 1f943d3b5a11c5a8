/** What a test's page lacks, because nothing is laid out there: whoever asks for a size is never told one. */
export function withoutLayout(): void {
  globalThis.ResizeObserver = class {
    observe() {}
    unobserve() {}
    disconnect() {}
  };
  Element.prototype.scrollIntoView = () => {};
}
