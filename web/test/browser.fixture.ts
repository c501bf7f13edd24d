import { cleanup } from '@testing-library/react';
import { toast } from 'sonner';
import { afterEach } from 'vitest';
import { useKeptDrafts } from '../src/shell/kept-drafts';

/* What components ask of a browser and jsdom does not have: sizes, scrolling, a drawing surface. */

const size = { configurable: true, get: () => 600 };
Object.defineProperty(Element.prototype, 'clientHeight', size);
Object.defineProperty(Element.prototype, 'clientWidth', size);
Element.prototype.scrollIntoView = () => undefined;
Element.prototype.hasPointerCapture = () => false;
Element.prototype.setPointerCapture = () => undefined;
Element.prototype.releasePointerCapture = () => undefined;
HTMLCanvasElement.prototype.getContext = function getContext() {
  const nothing = () => ({ width: 0 });
  return new Proxy({ canvas: this }, { get: (own, name) => (name in own ? this : nothing), set: () => true }) as never;
};
globalThis.ResizeObserver = class {
  observe() {}
  unobserve() {}
  disconnect() {}
};
globalThis.matchMedia = (query) => ({
  matches: false,
  media: query,
  onchange: null,
  addEventListener: () => undefined,
  removeEventListener: () => undefined,
  addListener: () => undefined,
  removeListener: () => undefined,
  dispatchEvent: () => false,
});

afterEach(() => {
  toast.dismiss();
  cleanup();
  localStorage.clear();
  useKeptDrafts.setState({ personId: 0, kinds: {}, isKept: true });
});
