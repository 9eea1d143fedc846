// What broke when it was tried by hand: each story once, as it goes now.
import { commit, expect, link, put, started, test } from './hands.mjs';

const h1 = (page) => page.getByRole('heading', { level: 1 });
const post = (page, path, data = {}) => page.request.post(path, { data, headers: { 'X-Ortholex': '1' } });
const tab = (page, count) => expect(page.locator('.tray-tab')).toHaveText(`${count} staged`);

async function stage(page, slug, values) {
    expect((await post(page, `/craft/${slug}/stage`, { values })).status()).toBe(200);
}

async function escs(page, slug) {
    await link(page, slug);
    await put(page, 'props', false);
    // ESCs that had power before the link listen only to the motor signal: whatever the tests before left on comes off first.
    await put(page, 'pack', false);
    await put(page, 'pack', true);
    await page.goto(`/craft/${slug}/16`);
    await expect(page.getByText('Read now, through the board')).toBeVisible();
    await started(page);
}

async function powerOff(page) {
    await put(page, 'pack', false);
}

test('an ESC that is soldered elsewhere takes along what is set, staged and taken back of it', async ({ page }) => {
    await escs(page, 'curlew');
    await post(page, '/craft/curlew/discard');
    await stage(page, 'curlew', { 'esc.front_right.advance_deg': '20' });
    await page.goto('/craft/curlew/16');
    await started(page);
    await commit(page, 'cooler');
    await expect(h1(page)).toContainText('Front right is the odd one out.');
    await powerOff(page);
    await page.locator('.faults summary').click();
    await page.getByLabel('what is swapped').selectOption('escs');
    await page.getByLabel('first place').selectOption('front_right');
    await page.getByLabel('second place').selectOption('rear_left');
    await page.getByRole('button', { name: 'Swap', exact: true }).click();
    await expect(page.locator('#said')).toContainText('Swapped on the desk.');
    await page.keyboard.press('Escape');
    await put(page, 'pack', true);
    await expect(h1(page)).toContainText('Rear left is the odd one out.');
    await expect(page.locator('#at-rear_left')).toContainText('front right’s, now here');
    await page.goto('/craft/curlew/73');
    const row = page.locator('.changes tbody tr').first();
    await expect(row).toContainText("front right's, now rear left");
    await started(page);
    await row.getByRole('button', { name: /Stage the way back/ }).click();
    await tab(page, 1);
    await page.locator('.tray-tab').click();
    await expect(page.locator('.tray-items')).toContainText('esc.rear_left.advance_deg');
    await started(page);
    await commit(page, 'back');
    await page.goto('/craft/curlew/16');
    await expect(h1(page)).toContainText('All 4 ESCs are alike');
    await powerOff(page);
    await post(page, '/craft/curlew/bench/swap', { what: 'escs', a: 'front_right', b: 'rear_left' });
});

test('a filter chain that would oscillate is told in the tray, and asked for once more', async ({ page }) => {
    await link(page, 'curlew');
    await post(page, '/craft/curlew/discard');
    await page.goto('/craft/curlew/62?thing=rate_path-1');
    await started(page);
    const cutoff = page.locator('[data-setting="rate_path.stage.1.cutoff_hz"]');
    const before = await cutoff.inputValue();
    await cutoff.fill('20');
    await page.keyboard.press('Tab');
    await tab(page, 1);
    await page.goto('/craft/curlew/61');
    await expect(h1(page)).toContainText(/As staged, .*would (oscillate|ring|peak)/);
    await page.locator('.tray-tab').click();
    await expect(page.locator('.effects')).toContainText(/Before you fly: By C-\d+, \w+ would (oscillate|ring)/);
    await page.getByLabel('Why').fill('to see');
    await page.locator('.commit-button').click();
    await expect(page.locator('input[name="knowing"]')).toBeFocused();
    await tab(page, 1);
    await page.getByLabel(/I have read what it will do/).check();
    await started(page);
    const revision = page.locator('.title .fig').nth(1);
    const stood = await revision.innerText();
    await page.locator('.commit-button').click();
    await expect(revision).not.toHaveText(stood);
    await expect(h1(page)).toContainText('As the craft stands now, not yet flown,');
    await stage(page, 'curlew', { 'rate_path.stage.1.cutoff_hz': before });
    await page.goto('/craft/curlew/61');
    await started(page);
    await commit(page, 'as before');
    await expect(h1(page)).not.toContainText('As the craft stands');
});

test('a way back over later changes names them, and one that changes nothing says so', async ({ page }) => {
    await link(page, 'bittern');
    await post(page, '/craft/bittern/discard');
    await page.goto('/craft/bittern/61?axis=yaw');
    const field = page.locator('[data-setting="gain.yaw.i"]');
    const before = await field.inputValue();
    for (const value of ['71', '72']) {
        await started(page);
        await field.fill(value);
        await page.keyboard.press('Tab');
        await tab(page, 1);
        await commit(page, `yaw's I ${value}`);
    }
    await page.goto('/craft/bittern/73');
    const [last, first] = [0, 1].map((n) => page.locator('.changes tbody tr').nth(n));
    const newest = (await last.locator('td').first().innerText()).trim();
    await expect(first).toContainText(`overrides ${newest}`);
    await started(page);
    await first.getByRole('button', { name: /Stage the way back/ }).click();
    await tab(page, 1);
    await page.locator('.tray-tab').click();
    await expect(page.locator('.tray-items')).toContainText(`72 → ${before}`);
    await started(page);
    await commit(page, 'all the way');
    await expect(page.locator('.changes tbody tr').nth(2)).toContainText('the craft stands as it did before it');
});

test('level, measured and taken off, reads level', async ({ page }) => {
    await link(page, 'curlew');
    await post(page, '/craft/curlew/discard');
    await page.goto('/craft/curlew/14');
    await started(page);
    await page.getByRole('button', { name: 'Use this as level' }).click();
    await expect(page.locator('.tray-tab')).toBeVisible();
    await started(page);
    await commit(page, 'level');
    await expect(page.getByText(/roll −?0\.[01]°, pitch −?0\.[01]°/)).toBeVisible();
    await page.goto('/craft/curlew/73');
    await started(page);
    await page.locator('.changes tbody tr').first().getByRole('button').click();
    await expect(page.locator('.tray-tab')).toBeVisible();
    await started(page);
    await commit(page, 'as it was');
});

test('the slowest signal fits a loop that is offered, and why others do not fit stands beside it', async ({ page }) => {
    await link(page, 'curlew');
    await post(page, '/craft/curlew/discard');
    await stage(page, 'curlew', { 'motors.protocol': 'pwm', 'motors.rpm_feedback': '0' });
    await page.goto('/craft/curlew/15?do=signal');
    await started(page);
    const rate = page.locator('[data-setting="motors.loop_rate_hz"]').first();
    await expect(rate.locator('option[value="50"]')).toHaveCount(1);
    await post(page, '/craft/curlew/discard');
});

test('props that meet are remarked where they are drawn', async ({ page }) => {
    await link(page, 'curlew');
    await post(page, '/craft/curlew/discard');
    await page.goto('/craft/curlew/14');
    await started(page);
    await page.locator('[data-setting="props.diameter_mm"]').fill('203');
    await page.keyboard.press('Tab');
    await tab(page, 1);
    await page.locator('.tray-tab').click();
    await expect(page.locator('.effects')).toContainText(
        /The prop discs of .* overlap: their motors stand 153 mm apart, the props measure 203 mm/,
    );
    await expect(page.locator('.commit-button')).toBeEnabled();
    await page.getByRole('button', { name: 'Discard all' }).click();
    await expect(page.locator('.tray-tab')).toBeHidden();
});
