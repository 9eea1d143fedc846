// The one road of settings from two places at once, under faults, and by file.
import { commit, expect, link, started, test } from './hands.mjs';

const h1 = (page) => page.getByRole('heading', { level: 1 });
const field = (page, name) => page.locator(`[data-setting="${name}"]`);
// The moment stands still for this page, so that it goes on showing what it shows.
async function frozen(page) {
    let moment = null;
    await page.route('**/live.json*', async (route) => {
        moment ??= await (await route.fetch()).text();
        await route.fulfill({ contentType: 'application/json', body: moment });
    });
}

async function clean(page) {
    await page.evaluate(() =>
        fetch('/craft/bittern/discard', { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: '{}' }),
    );
}

test('a tray that showed something else does not commit it', async ({ page, context }) => {
    await link(page, 'bittern');
    await clean(page);
    await page.goto('/craft/bittern/61?axis=pitch');
    await started(page);
    const before = await field(page, 'gain.pitch.p').inputValue();
    await field(page, 'gain.pitch.p').fill('31.5');
    await page.keyboard.press('Tab');
    await expect(page.locator('.tray-tab')).toHaveText('1 staged');
    await page.locator('.tray-tab').click();
    await expect(page.locator('.tray-items')).toContainText('31.5');
    await frozen(page);
    await page.waitForResponse(/live\.json/);
    const other = await context.newPage();
    await other.goto('/craft/bittern/61?axis=pitch');
    await started(other);
    await field(other, 'gain.pitch.p').fill('33.5');
    await other.keyboard.press('Tab');
    await expect(other.locator('.tray-items')).toContainText('33.5');
    await page.getByLabel('Why').fill('what I saw');
    await page.keyboard.press('Control+Enter');
    await expect(page.locator('.tray-panel .problem')).toContainText('is now staged as 33.5');
    await page.unroute('**/live.json*');
    await page.reload();
    await expect(page.locator('.tray-items')).toContainText('33.5');
    await started(page);
    await commit(page, 'as it stands now');
    await page.goto('/craft/bittern/73');
    await expect(page.locator('.changes tbody tr').first()).toContainText('→ 33.5');
    // And back, so that others find it as it was.
    await page
        .getByRole('button', { name: /Stage the way back/ })
        .first()
        .click();
    await expect(page.locator('.tray-tab')).toHaveText('1 staged');
    await started(page);
    await commit(page, 'as before');
    await page.goto('/craft/bittern/61?axis=pitch');
    await expect(field(page, 'gain.pitch.p')).toHaveValue(before);
});

test('an edit of what another tab has changed is refused once, with what stands now', async ({ page, context }) => {
    await link(page, 'bittern');
    await clean(page);
    await page.goto('/craft/bittern/61?axis=yaw');
    await started(page);
    await frozen(page);
    await page.waitForResponse(/live\.json/);
    const other = await context.newPage();
    await other.goto('/craft/bittern/61?axis=yaw');
    await started(other);
    await field(other, 'gain.yaw.i').fill('77');
    await other.keyboard.press('Tab');
    await expect(other.locator('.tray-tab')).toHaveText('1 staged');
    await field(page, 'gain.yaw.i').fill('88');
    await page.keyboard.press('Tab');
    await expect(page.locator('#stage-problem, #said').filter({ hasText: 'is now staged as 77' }).first()).toBeVisible();
    await expect(field(page, 'gain.yaw.i')).toHaveValue('88');
    await clean(page);
});

test('a second thought in one tab is no quarrel, however fast it comes', async ({ page }) => {
    await link(page, 'bittern');
    await clean(page);
    await page.goto('/craft/bittern/61?axis=roll');
    await started(page);
    for (const value of ['29.5', '30.5', '31', '32']) {
        await field(page, 'gain.roll.p').fill(value);
        await page.keyboard.press('Tab');
    }
    await expect(page.locator('.tray-tab')).toHaveText('1 staged');
    await expect(page.locator('.tray-items')).toContainText('32');
    await expect(page.locator('#stage-problem')).toBeHidden();
    await clean(page);
});

test('settings come in from a file; faults stand on the sheet with their lines', async ({ page }) => {
    await link(page, 'bittern');
    await clean(page);
    await page.goto('/craft/bittern/71');
    await started(page);
    const file = (text) => ({ name: 'mine.yaml', mimeType: 'application/yaml', buffer: Buffer.from(text) });
    await page.locator('input[name="file"]').setInputFiles(file('gain.roll.p: 900\nnonsense\ngain.roll.d:2\n'));
    await page.getByRole('button', { name: 'Check and stage' }).click();
    const problem = page.locator('#yaml-problem');
    await expect(problem).toContainText('Line 1: gain.roll.p');
    await expect(problem).toContainText('Line 2, column 9: the colon after the name of the setting is missing.');
    await expect(problem).toContainText('Line 3, column 13: a space is missing after the colon.');
    await expect(page.locator('.tray-tab')).toBeHidden();
    await page.locator('input[name="file"]').setInputFiles(file('gain.roll.p: 29.5\nmotors.loop_rate_hz: 4000\n'));
    await page.getByRole('button', { name: 'Check and stage' }).click();
    await expect(page.locator('#said')).toContainText('2 settings were read');
    await expect(page.locator('.tray-tab')).toHaveText('2 staged');
    await clean(page);
});

test('a map to a motor that the frame has not is refused in the tray, by its reason', async ({ page }) => {
    await link(page, 'curlew');
    await page.goto('/craft/curlew/71');
    await started(page);
    await page.getByLabel('Settings as YAML').fill('pad.5.drives: left');
    await page.getByRole('button', { name: 'Check and stage' }).click();
    await expect(page.locator('.tray-tab')).toHaveText('1 staged');
    await page.locator('.tray-tab').click();
    await expect(page.locator('.effects')).toContainText('Output 5 is set to drive the left motor, which this frame does not have');
    await expect(page.locator('.commit-button')).toBeDisabled();
    await page.getByRole('button', { name: 'Discard all' }).click();
    await expect(page.locator('.tray-tab')).toBeHidden();
});

test('two digits of no sheet say so', async ({ page }) => {
    await page.goto('/craft/curlew/61');
    await started(page);
    await page.keyboard.press('9');
    await page.keyboard.press('8');
    await expect(page.locator('#said')).toContainText('There is no sheet 98.');
    await expect(h1(page)).toBeVisible();
    expect(page.url()).toContain('/craft/curlew/61');
});
