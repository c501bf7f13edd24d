/* What runs in the page to look for something: in one go, as a page with a thousand rows takes long to be asked about piece by piece. */

/** Answers with an element that is seen, or null. It is sent to the page as text: it uses nothing from around it. */
export type Look = (given: never) => Element | null;

/** The first element by an XPath. */
export function lookForPath(path: string): Element | null {
  const found = document.evaluate(path, document, null, XPathResult.ORDERED_NODE_SNAPSHOT_TYPE);
  for (let at = 0; at < found.snapshotLength; at += 1) {
    const element = found.snapshotItem(at) as Element;
    const { width, height } = element.getBoundingClientRect();
    if (width > 0 && height > 0 && element.checkVisibility({ visibilityProperty: true })) return element;
  }
  return null;
}

/** The first button, link or choice that is called so, or whose words begin so. */
export function lookForName(name: string): Element | null {
  for (const element of document.querySelectorAll('button, a, [role=menuitem], [role=option]')) {
    const words = (element.textContent ?? '').replaceAll(/[ \t\r\n]+/g, ' ').trim();
    const isChoice = element.matches('[role=menuitem], [role=option]');
    const isCalledSo = element.getAttribute('aria-label') === name || words.startsWith(name);
    if (!isCalledSo && !(isChoice && words.includes(name))) continue;
    const { width, height } = element.getBoundingClientRect();
    if (width > 0 && height > 0 && element.checkVisibility({ visibilityProperty: true })) return element;
  }
  return null;
}

/** The innermost element that bears the words, which may run over several. */
export function lookForWords(words: string): Element | null {
  const bears = (element: Element) => (element.textContent ?? '').replaceAll(/[ \t\r\n]+/g, ' ').includes(words);
  const look = (element: Element): Element | null => {
    let isDeeper = false;
    for (const child of element.children) {
      if (!bears(child)) continue;
      isDeeper = true;
      const found = look(child);
      if (found) return found;
    }
    if (isDeeper) return null;
    const shown = element.closest('select') ?? element; // a choice of a closed list is drawn by nobody
    const { width, height } = shown.getBoundingClientRect();
    return width > 0 && height > 0 && shown.checkVisibility({ visibilityProperty: true }) ? element : null;
  };
  const { body } = document;
  return body && bears(body) ? look(body) : null;
}

/** What the page says first; empty while it says nothing. */
export function readHeadline(): string {
  return document.querySelector('h1')?.innerText ?? '';
}
