import { commit, expect, link, put, started, test } from './hands.mjs';

const h1 = (page) => page.getByRole('heading', { level: 1 });

test('who lies about the props sees what happens', async ({ page }) => {
    await link(page, 'bittern');
    await page.goto('/craft/bittern/15');
    await put(page, 'props', true);
    await put(page, 'pack', false);
    await put(page, 'pack', true);
    await page.getByRole('button', { name: 'The props are off' }).click();
    const spin = page.locator('#pad-1');
    await expect(spin).toHaveAttribute('aria-disabled', 'false');
    await expect(page.locator('html')).toHaveAttribute('data-started', '1');
    await spin.focus();
    await page.keyboard.down(' ');
    await expect(page.locator('#said')).toContainText('leapt off the desk');
    await page.keyboard.up(' ');
    await expect(page.locator('#link-state')).toContainText('not linked');
});

test('a board that runs firmware of another board is rescued by its button', async ({ page }) => {
    await link(page, 'bittern');
    await page.locator('#faults summary').click();
    await page.getByRole('button', { name: 'the board was flashed with firmware of another board' }).click();
    await page.keyboard.press('Escape');
    await page.goto('/craft/bittern/11');
    await put(page, 'cable', false);
    await put(page, 'cable', true);
    await expect(h1(page)).toContainText('not linked yet');
    await started(page);
    await page.getByRole('button', { name: 'Link', exact: true }).click();
    await expect(page.locator('#said')).toContainText("press the board's bootloader button");
    await page.locator('#faults summary').click();
    await page.getByRole('button', { name: "Press the board's bootloader button" }).click();
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'Link', exact: true }).click();
    await expect(h1(page)).toContainText('only its bootloader runs');
    await page.goto('/craft/bittern/12');
    await page.getByRole('link', { name: 'Choose Loam 26.06 for Tarn H7', exact: true }).click();
    await started(page);
    await page.locator('#write-button').click();
    await expect(page.getByText('Written and verified')).toBeVisible({ timeout: 60_000 });
    await page.goto('/craft/bittern/11');
    await expect(h1(page)).toContainText('Tarn H7 answers with Loam 26.06.');
});

test('three of four ESCs take a write; the fourth is named, and takes it at the retry', async ({ page }) => {
    await link(page, 'curlew');
    await put(page, 'pack', false);
    await expect(page.locator('.order')).not.toContainText('ESCs ✓');
    await put(page, 'props', false);
    await put(page, 'pack', true);
    await expect(page.locator('.order')).toContainText('ESCs ✓');
    // What tests before this one left staged is none of it.
    await page.evaluate(() =>
        fetch('/craft/curlew/discard', { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: '{}' }),
    );
    await page.goto('/craft/curlew/16');
    await expect(h1(page)).toContainText('All 4 ESCs are alike.');
    await page.locator('#faults summary').click();
    await page.locator('[data-fault="loose_signal_wire"]').check();
    await page.keyboard.press('Escape');
    await started(page);
    await page.getByLabel('Tone loudness, all ESCs, %').fill('35');
    await page.keyboard.press('Enter');
    await expect(page.locator('.tray-tab')).toHaveText('4 staged');
    await started(page);
    await page.locator('.tray-tab').click();
    await page.getByLabel('Why').fill('quieter on the marsh');
    await page.keyboard.press('Control+Enter');
    await expect(page.locator('.tray-panel .problem')).toContainText('Rear left did not acknowledge, asked 3 times');
    await page.reload();
    await expect(h1(page)).toContainText('Rear left did not acknowledge the last write.');
    await expect(page.locator('.tray-tab')).toHaveText('1 staged');
    await page.locator('#faults summary').click();
    await page.locator('[data-fault="loose_signal_wire"]').uncheck();
    await page.keyboard.press('Escape');
    await started(page);
    await commit(page, 'the joint was made good');
    await expect(h1(page)).toContainText('All 4 ESCs are alike.');
    await expect(page.locator('#at-front_left')).toContainText('acknowledged');
});
