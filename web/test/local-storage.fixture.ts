/* What a browser keeps for a site, where there is no browser: its items are its own properties, as they are there. */

const methods = {
  getItem(this: Record<string, string>, key: string) {
    return Object.hasOwn(this, key) ? this[key]! : null;
  },
  setItem(this: Record<string, string>, key: string, value: string) {
    this[key] = value;
  },
  removeItem(this: Record<string, string>, key: string) {
    delete this[key];
  },
  clear(this: Record<string, string>) {
    for (const key of Object.keys(this)) delete this[key];
  },
};

globalThis.localStorage ??= Object.create(methods) as Storage;
