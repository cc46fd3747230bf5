import { expect, type Locator, type Page } from '@playwright/test';
import { openEmpty, openStep, setNumber, step } from './helpers';

/** What a field is set to: a number or formula is typed, a word is chosen, true and false switch. */
export type Wanted = string | boolean;

/** A person at the studio, who uses nothing but what is on the screen. */
export class Hands {
  constructor(readonly page: Page) {}

  async emptyScene(name: string): Promise<void> {
    await openEmpty(this.page);
    await this.page.getByText(/^Untitled reef/).dblclick();
    await this.page.keyboard.type(name);
    await this.page.keyboard.press('Enter');
  }

  async range(last: number): Promise<void> {
    await setNumber(this.page.getByLabel('Last frame', { exact: true }), String(last));
  }

  /** Begins a growth by the palette, as in “New growth: line”. */
  async newGrowth(start: string): Promise<void> {
    await this.page.keyboard.press('Control+k');
    await this.page.getByRole('combobox', { name: 'Find' }).fill(`new growth: ${start}`);
    await this.page.keyboard.press('Enter');
    await expect(this.page.getByRole('button', { name: 'Add a step' })).toBeVisible();
  }

  async addStep(label: string): Promise<Locator> {
    await this.page.getByRole('button', { name: 'Add a step' }).click();
    await this.page.getByRole('combobox', { name: 'Find' }).fill(label);
    await this.page
      .getByRole('option', { name: new RegExp(`^${label}`) })
      .first()
      .click();
    return openStep(this.page, label);
  }

  async deleteStep(label: string): Promise<void> {
    await this.page.getByRole('button', { name: `More for ${label}`, exact: true }).click();
    await this.page.getByRole('menuitem', { name: 'Delete' }).click();
    await expect(step(this.page, label)).toHaveCount(0);
  }

  /** Sets fields of a step, which opens in place. */
  async set(label: string, fields: Record<string, Wanted>): Promise<void> {
    const open = await openStep(this.page, label);
    for (const [name, wanted] of Object.entries(fields)) {
      const chooser = open.getByRole('combobox', { name, exact: true });
      if (typeof wanted === 'boolean') await open.getByRole('switch', { name, exact: true }).setChecked(wanted);
      else if ((await chooser.count()) > 0) {
        await chooser.click();
        await this.page.getByRole('option', { name: wanted, exact: true }).click();
        await this.closed();
      } else {
        await setNumber(open.getByLabel(name, { exact: true }), wanted);
        await expect(open.getByRole('alert')).toHaveCount(0);
      }
    }
  }

  /** Waits until what was open over the studio has gone altogether: keys are its own until then. */
  closed(): Promise<void> {
    return expect(this.page.locator('.MuiPopover-root')).toHaveCount(0);
  }

  /** Makes an animated value a plain one. */
  async still(label: string, name: string): Promise<void> {
    const open = await openStep(this.page, label);
    await open
      .getByRole('button', { name: new RegExp(`^${name}: `) })
      .first()
      .click({ modifiers: ['Shift'] });
  }

  async preset(label: string, field: string, name: string): Promise<void> {
    const open = await openStep(this.page, label);
    await open.getByRole('button', { name: `${field} presets`, exact: true }).click();
    await this.page.getByRole('menuitem', { name, exact: true }).click();
    await this.closed();
  }

  /** Draws a stroke over the viewport, through points given as shares of its width and height. */
  async draw(points: readonly (readonly [number, number])[]): Promise<void> {
    await this.page.keyboard.press('d');
    const box = (await this.page.getByTestId('draw-layer').boundingBox())!;
    const at = ([x, y]: readonly [number, number]): [number, number] => [box.x + x * box.width, box.y + y * box.height];
    await this.page.mouse.move(...at(points[0]));
    await this.page.mouse.down();
    for (const point of points.slice(1)) await this.page.mouse.move(...at(point), { steps: 12 });
    await this.page.mouse.up();
  }

  /** Measures the seam, and gives the row of a growth. */
  async seam(growth: string): Promise<string> {
    await this.page.getByRole('button', { name: 'Checks', exact: true }).click();
    await this.page.getByRole('button', { name: 'Measure' }).click();
    const row = this.page.getByTestId('seam');
    await expect(row).toContainText(growth, { timeout: 120_000 });
    const text = (await row.textContent()) ?? '';
    await this.page.getByRole('button', { name: 'Checks', exact: true }).click();
    return text;
  }
}
