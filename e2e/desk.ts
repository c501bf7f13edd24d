import { writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { readFileSync } from 'node:fs';
import { By, error as refusals, Key, type WebDriver, type WebElement } from 'selenium-webdriver';
import { lookForName, lookForPath, lookForWords, readHeadline, type Look } from './look.js';
import { beforeEach, describe, expect, onTestFailed } from 'vitest';

const axeSource = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');
/** Nothing but a limit against hanging: a step waits for what it needs, and goes on the moment it is there. */
export const patience = Number(process.env['WOMBAT_PATIENCE'] ?? 120_000);
/** Milliseconds between two looks. */
const pause = 60;

/** What a page may do to somebody's finger: draw the thing anew under it, or put something over it for a moment. */
const passing = [
  refusals.StaleElementReferenceError,
  refusals.ElementClickInterceptedError,
  refusals.ElementNotInteractableError,
];

/**
 * Steps that lead on to one another: the first one that fails ends the story, as what follows would only tell of it again.
 */
export function story(name: string, steps: () => void): void {
  // oxlint-disable-next-line vitest/valid-title -- the title is the story's
  describe(name, () => {
    let failed: string | undefined;
    beforeEach(({ task }) => {
      if (failed !== undefined) throw new Error(`the story ended with “${failed}”`);
      onTestFailed(() => {
        failed ??= task.name;
      });
    });
    steps();
  });
}

/** What a person at the desk can do: look, click what bears a name, type, press keys. Everything waits until it is there. */
export function atDesk(driver: WebDriver, address: () => string) {
  /** What a look at the page finds, as soon as it is there and seen. */
  const found = (look: Look, given: unknown, what: string): Promise<WebElement> =>
    driver.wait(
      () => driver.executeScript<WebElement | null>(look, given).catch(unlessPassing),
      patience,
      `nothing that is seen on the page is ${what}`,
      pause,
    ) as Promise<WebElement>;
  const located = (path: string, what: string) => found(lookForPath, path, what);
  const named = (name: string) => found(lookForName, name, `called "${name}"`);
  /** Does something to what is looked for anew each time, until the page lets it. */
  const untilLet = async (
    find: () => Promise<WebElement | null>,
    act: (element: WebElement) => Promise<unknown>,
    what: string,
  ) => {
    await driver.wait(
      async () => {
        try {
          const element = await find();
          if (element === null) return false;
          await act(element);
          return true;
        } catch (reason) {
          if (passing.some((kind) => reason instanceof kind)) return false;
          throw reason;
        }
      },
      patience,
      `${what} cannot be reached`,
      pause,
    );
  };
  const desk = {
    driver,
    open: (path: string) => driver.get(address() + path),
    async click(name: string) {
      const enabled = async () => {
        const element = await named(name);
        return (await element.isEnabled()) ? element : null;
      };
      await untilLet(enabled, (element) => element.click(), `"${name}", or it stays disabled,`);
    },
    /** Chooses a view of the page, whatever else is called so. */
    view: (name: string) =>
      untilLet(
        () =>
          located(`//*[@role='group']/button[@aria-pressed][normalize-space()=${quoted(name)}]`, `a view "${name}"`),
        (button) => button.click(),
        `the view "${name}"`,
      ),
    /** Waits until a button that stays pressed is, by the beginning of what it says. */
    isChosen: (name: string) =>
      located(`//button[@aria-pressed='true'][starts-with(normalize-space(),${quoted(name)})]`, `"${name}", chosen,`),
    /** Clicks what a selector finds first. */
    clickOn: (selector: string) =>
      untilLet(
        () => driver.findElement(By.css(selector)).catch(() => null),
        (element) => element.click(),
        selector,
      ),
    /** Waits until what is asked again and again is as expected. */
    eventually: async <Value>(ask: () => Promise<Value>, expected: Value) => {
      await expect.poll(() => ask().catch(unlessPassing), { timeout: patience, interval: 100 }).toEqual(expected);
    },
    /** Waits until a button can, or cannot, be pressed. */
    canPress: async (name: string, can = true) => {
      await desk.eventually(async () => (await named(name)).isEnabled(), can);
    },
    /** Waits until a field holds a text. */
    holds: (label: string, text: string) =>
      desk.eventually(async () => (await desk.field(label)).getAttribute('value'), text),
    /** The field that bears a label, or that a label stands over. */
    field: (label: string) =>
      located(
        `(//input[@aria-label=${quoted(label)}] | //select[@aria-label=${quoted(label)}] | //button[@role='combobox'][@aria-label=${quoted(label)}] | //*[self::input or self::select or self::button[@role='combobox']][@id=//label[normalize-space()=${quoted(label)}]/@for])[1]`,
        `a field for "${label}"`,
      ),
    async type(label: string, text: string) {
      await untilLet(
        () => desk.field(label),
        (field) => field.click(),
        `the field "${label}"`,
      );
      const field = await desk.field(label);
      await field.sendKeys(Key.chord(Key.CONTROL, 'a'), Key.BACK_SPACE, text);
      return field;
    },
    /** Goes to a cell of a grid, by the head of its row or its place from the top, and the beginning of the head of its column. */
    goToCell: (row: string | number, column: string) =>
      untilLet(
        () => located(cellPath(row, column), `a cell “${column}” of ${row}`),
        (cell) => cell.click(),
        `the cell “${column}” of ${row}`,
      ),
    /** Types over a cell and goes on to the next row; nothing empties it. */
    async typeInCell(row: string | number, column: string, text: string) {
      await desk.goToCell(row, column);
      await (text === '' ? desk.press(Key.DELETE) : desk.press(text, Key.ENTER));
    },
    cellHolds: (row: string | number, column: string, text: string) =>
      desk.eventually(async () => (await located(cellPath(row, column), `“${column}” of ${row}`)).getText(), text),
    /** Chooses from a list by the beginning of what it says; from a long one by typing. */
    async choose(label: string, option: string) {
      const field = await desk.field(label);
      if ((await field.getTagName()) === 'button') {
        await untilLet(
          () => desk.field(label),
          (button) => button.click(),
          `the list "${label}"`,
        );
        await desk.press(option);
      }
      await untilLet(
        async () =>
          (await field.getTagName()) === 'button'
            ? driver.findElement(By.xpath(`//*[@role='option'][starts-with(normalize-space(),${quoted(option)})]`))
            : (await desk.field(label)).findElement(
                By.xpath(`.//option[starts-with(normalize-space(),${quoted(option)})]`),
              ),
        (found) => found.click(),
        `"${option}" of "${label}"`,
      );
    },
    /** Ticks or unticks what a label says. */
    tick: (label: string) =>
      untilLet(
        () =>
          located(
            `(//label[normalize-space()=${quoted(label)}]//input | //input[@type='checkbox'][@aria-label=${quoted(label)}])[1]`,
            `a box for "${label}"`,
          ),
        (box) => box.click(),
        `the box "${label}"`,
      ),
    /** Waits for a notice and rests the pointer on it, so that it stays for as long as it takes to come back to it. */
    pointsAt: (text: string) =>
      untilLet(
        () => located(`//li[@data-sonner-toast][contains(normalize-space(),${quoted(text)})]`, `a notice “${text}”`),
        (notice) => driver.actions().move({ origin: notice }).perform(),
        `the notice “${text}”`,
      ),
    /** Presses keys wherever the focus is. */
    press: (...keys: string[]) =>
      driver
        .actions()
        .sendKeys(...keys)
        .perform(),
    /** What has the focus, by its name. */
    focused: () =>
      driver.executeScript<string>(
        'const at = document.activeElement; return at.getAttribute("aria-label") ?? (at.labels?.[0] ?? at).textContent.trim()',
      ),
    /** Pastes what a spreadsheet puts on the clipboard, where the focus is. */
    paste: (text: string) =>
      driver.executeScript<void>(
        `const data = new DataTransfer();
         data.setData('text/plain', arguments[0]);
         document.activeElement.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));`,
        text,
      ),
    /** Presses Tab until what has the focus is called so; answers how often. */
    async tabTo(name: RegExp, back = false): Promise<number> {
      for (let step = 0; step < 80; step += 1) {
        if (name.test(await desk.focused())) return step;
        await (back
          ? driver.actions().keyDown(Key.SHIFT).sendKeys(Key.TAB).keyUp(Key.SHIFT).perform()
          : desk.press(Key.TAB));
      }
      throw new Error(`Tab never comes to ${name}; it is at “${await desk.focused()}”`);
    },
    /** Presses keys with the focus on the page rather than in a field. */
    async pressOnPage(...keys: string[]) {
      await driver.executeScript('document.activeElement?.blur()');
      await desk.press(...keys);
    },
    save: () => driver.actions().keyDown(Key.CONTROL).sendKeys('s').keyUp(Key.CONTROL).perform(),
    headline: async () => (await located('//h1', 'a headline')).getText(),
    /** Waits until the headline says it. */
    async reads(pattern: RegExp) {
      let read = '';
      const look = async () => {
        read = (await driver.executeScript<string>(readHeadline).catch(unlessPassing)) ?? '';
        return pattern.test(read);
      };
      await driver.wait(look, patience, undefined, pause).catch((cause: unknown) => {
        throw new Error(`the headline never reads ${pattern}; it reads “${read}”`, { cause });
      });
    },
    /** Waits until the words are somewhere on the page. */
    sees: (words: string) => found(lookForWords, words, `"${words}"`),
    /** Clicks what holds the words; it may be drawn anew between the look and the click. */
    clickWords: (words: string) =>
      untilLet(
        () => desk.sees(words),
        (element) => element.click(),
        `"${words}"`,
      ),
    async seesNot(words: string) {
      await driver.wait(
        async () => (await driver.executeScript(lookForWords, words)) === null,
        patience,
        `"${words}" stays on the page`,
        pause,
      );
    },
    texts: async (selector: string) =>
      Promise.all((await driver.findElements(By.css(selector))).map((element) => element.getText())),
    /** Nothing that axe can find stands in anybody's way on this view; of a view in other colours, nothing in its colours. */
    async isAccessible(inWhat: 'all' | 'colours' = 'all') {
      if (!(await driver.executeScript<boolean>('return "axe" in window'))) await driver.executeScript(axeSource);
      const found = await driver.executeAsyncScript<{
        violations: { id: string; nodes: { html: string; failureSummary: string }[] }[];
      }>(
        `const [rules, done] = arguments; axe.run(document, { resultTypes: ['violations'], preload: false, ...rules }).then(done)`,
        inWhat === 'all' ? {} : { runOnly: { type: 'rule', values: ['color-contrast', 'link-in-text-block'] } },
      );
      expect
        .soft(
          found.violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html.slice(0, 160)} ${nodes[0]?.failureSummary}`),
        )
        .toEqual([]);
    },
    /** A picture for whoever looks into a failing journey; kept only where WOMBAT_PICTURES names a folder. */
    async picture(name: string) {
      const folder = process.env['WOMBAT_PICTURES'];
      if (folder) writeFileSync(`${folder}/${name}.png`, await driver.takeScreenshot(), 'base64');
    },
  };
  return desk;
}

export type Desk = ReturnType<typeof atDesk>;

/** What was drawn anew while it was read is read again. */
function unlessPassing(reason: unknown): undefined {
  const isLeaving = reason instanceof Error && reason.message.includes('aborted by navigation');
  if (!isLeaving && !passing.some((kind) => reason instanceof kind)) throw reason;
}

function cellPath(row: string | number, column: string): string {
  const of =
    typeof row === 'number'
      ? `@aria-rowindex='${row + 2}'`
      : `*[@role='rowheader'][starts-with(normalize-space(),${quoted(row)})]`;
  const at = `//*[@role='columnheader'][starts-with(normalize-space(),${quoted(column)})]/@aria-colindex`;
  return `(//*[@role='row'][${of}]//*[@role='gridcell'][@aria-colindex=${at}])[1]`;
}

function quoted(text: string): string {
  return text.includes("'") ? `"${text}"` : `'${text}'`;
}
