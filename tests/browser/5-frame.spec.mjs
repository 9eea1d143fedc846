import { commit, expect, link, test } from './hands.mjs';

test('Dunlin shows how its board lies, and the picture follows after', async ({ page }) => {
  await link(page, 'dunlin');
  await page.goto('/craft/dunlin/14');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Show it');
  await page.getByLabel('Tilt of the craft').selectOption('level');
  await page.waitForTimeout(1500);
  await page.getByRole('button', { name: 'It is level' }).click();
  await expect(page.getByRole('button', { name: 'Take it again' })).toHaveCount(1);
  await page.getByLabel('Tilt of the craft').selectOption('nose_up');
  await page.waitForTimeout(1500);
  await page.getByRole('button', { name: 'The nose is up' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('The board sits turned 90° to the right; the settings say otherwise.');
  await page.getByLabel('thrust for nose up').check();
  await expect(page.locator('[data-command="pitch"]').first()).toBeVisible();
  await page.getByRole('button', { name: 'Stage this mounting' }).click();
  await expect(page.locator('.tray-tab')).toHaveText('1 staged');
  await page.locator('.tray-tab').click();
  await expect(page.locator('.effects')).toContainText('The board restarts once');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('that is staged, not yet on the craft');
  await commit(page, 'the plug faces the right arm');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('and the settings say so');
  await page.goto('/craft/dunlin/11');
  await expect(page.locator('[data-angle="pitch"]')).toContainText(/pitch 4[45]\.\d°/);
  await expect(page.locator('[data-angle="roll"]')).toContainText(/roll -?0\.\d°/);
});
