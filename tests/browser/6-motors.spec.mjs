import { commit, expect, link, put, started, test } from './hands.mjs';

// The builder looks at the craft on the desk, and says what turned.
async function show(page, output) {
  const spin = page.locator('#spin');
  await expect(spin).toHaveText(new RegExp(`Hold to spin output ${output}`));
  await expect(page.locator('html')).toHaveAttribute('data-started', '1');
  const box = await spin.boundingBox();
  await page.mouse.move(box.x + 30, box.y + 10);
  await page.mouse.down();
  await expect(page.locator('[data-turning]')).toContainText('turns');
  const seen = await page.locator('[data-turning]').innerText();
  await page.mouse.up();
  await expect(page.locator('[data-turning]')).toHaveText('motors still');
  await page.locator(`[data-place="${seen.split(' turns')[0].replace(' ', '_')}"]`).click();
  await page.locator(`#which [data-way="${seen.includes('↻') ? 1 : -1}"]`).click();
}

test('Dunlin: each motor is shown, the pad map follows, and a second round proves it', async ({ page }) => {
  await link(page, 'dunlin');
  await page.goto('/craft/dunlin/15');
  await put(page, 'pack', false);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Nothing turns yet: two things first.');
  await expect(page.locator('#spin')).toBeDisabled();
  await put(page, 'pack', true);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('one thing first');
  await put(page, 'props', false);
  await started(page);
  await page.getByRole('button', { name: 'The props are off' }).click();
  await expect(page.locator('#spin')).toBeEnabled();
  for (const output of [1, 2, 3, 4]) await show(page, output);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('3 outputs go to other motors than the settings say.');
  await page.getByRole('button', { name: 'Stage the new pad map' }).click();
  await expect(page.locator('.tray-tab')).toHaveText('3 staged');
  await commit(page, 'soldered as the arms lay');
  await expect(page.locator('.tray-tab')).toBeHidden();
  for (const output of [1, 2, 3, 4]) await show(page, output);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Every output drives its motor, and every motor turns as it should.');
});

test('who lies about the props sees what happens', async ({ page }) => {
  await link(page, 'bittern');
  await page.goto('/craft/bittern/15');
  await put(page, 'props', true);
  await put(page, 'pack', false);
  await put(page, 'pack', true);
  await page.getByRole('button', { name: 'The props are off' }).click();
  const spin = page.locator('#spin');
  await expect(spin).toBeEnabled();
  await expect(page.locator('html')).toHaveAttribute('data-started', '1');
  await spin.focus();
  await page.keyboard.down(' ');
  await expect(page.locator('#said')).toContainText('leapt off the desk');
  await page.keyboard.up(' ');
  await expect(page.locator('#link-state')).toContainText('not linked');
});
