import type { Locator, Page } from 'playwright-core';

/**
 * Seconds of the keystroke-level model (Card, Moran and Newell 1980): a key of somebody who types seldom, pointing,
 * pressing a button, a hand that changes place, a thought.
 */
const KEY_S = 0.28;
const POINT_S = 1.1;
const PRESS_S = 0.2;
const HOME_S = 0.4;
const THINK_S = 1.35;

/** Somebody at the screen whose every click and every key is counted. */
export class CountedHands {
  clicks = 0;
  strokes = 0;
  /** Letters that were typed into fields, and how often a hand went to the keys for it. */
  typed = 0;
  fields = 0;

  constructor(readonly page: Page) {}

  /** Presses what is seen. */
  async click(target: Locator): Promise<void> {
    this.clicks += 1;
    await target.click();
  }

  /** Ticks a box or a choice. */
  async tick(target: Locator): Promise<void> {
    this.clicks += 1;
    await target.check();
  }

  /** Opens a list and takes one of it: two clicks. */
  async choose(list: Locator, what: string | { readonly label: string }): Promise<void> {
    this.clicks += 2;
    await list.selectOption(what);
  }

  /** Clicks into a field and types; what stood there goes. Enter, where it is pressed, is part of typing. */
  async type(field: Locator, text: string, isEntered = false): Promise<void> {
    this.clicks += 1;
    this.typed += text.length + (isEntered ? 1 : 0);
    this.fields += 1;
    await field.fill(text);
    if (isEntered) await field.press('Enter');
  }

  /** How long it takes by the keystroke-level model, with a thought before every click, s. */
  get seconds(): number {
    const clicks = this.clicks * (THINK_S + POINT_S + PRESS_S);
    return clicks + (this.typed + this.strokes) * KEY_S + this.fields * 2 * HOME_S;
  }

  /** Drags files onto the page, or chooses them: two clicks. */
  async drop(field: Locator, files: Parameters<Locator['setInputFiles']>[0]): Promise<void> {
    this.clicks += 2;
    await field.setInputFiles(files);
  }

  /** Presses keys one after the other. */
  async keys(...pressed: readonly string[]): Promise<void> {
    for (const key of pressed) {
      this.strokes += 1;
      await this.page.keyboard.press(key);
    }
  }

  /** Types letter by letter. */
  async letters(text: string): Promise<void> {
    this.strokes += text.length;
    await this.page.keyboard.type(text);
  }

  /** Tabs on until a key would press what is looked for. @throws Error after so many that nobody would go on */
  async tabTo(target: Locator): Promise<void> {
    for (let tabs = 0; tabs < 25; tabs++) {
      if (await target.evaluate((one) => one === document.activeElement)) return;
      await this.keys('Tab');
    }
    throw new Error('25 tabs, and not there');
  }
}
