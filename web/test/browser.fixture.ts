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
// No style sheet is loaded: what an element says of itself is all there is, and jsdom looks long for more.
globalThis.getComputedStyle = (element, pseudo) => {
  const { style } = pseudo ? document.createElement('i') : (element as HTMLElement);
  const said: Record<string, string> = {
    display: style.display || ((element as HTMLElement).hidden ? 'none' : 'block'),
    visibility: style.visibility || 'visible',
  };
  const valueOf = (name: string) => said[name] ?? style.getPropertyValue(name);
  return new Proxy(style, {
    get(own, name) {
      if (name === 'getPropertyValue') return valueOf;
      return (typeof name === 'string' ? said[name] : undefined) ?? (Reflect.get(own, name) as unknown);
    },
  });
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
