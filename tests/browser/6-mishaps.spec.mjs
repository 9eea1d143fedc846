import { boxOf, commit, expect, link, put, started, test } from './hands.mjs';

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

test('ESCs that could not be asked the first time are asked again by themselves', async ({ page }) => {
    await link(page, 'curlew');
    await put(page, 'pack', false);
    await expect(page.locator('.order')).not.toContainText('ESCs ✓');
    let times = 0;
    await page.route('**/escs/read', (route) =>
        ++times > 1 ? route.continue() : route.fulfill({ status: 409, json: { error: 'The link is slow.' } }),
    );
    await put(page, 'pack', true);
    await expect(page.locator('#said')).toContainText('The link is slow.');
    await expect(page.locator('.order')).toContainText('ESCs ✓');
    expect(times).toBe(2);
});

test('a hand that is quicker than the server is told whole: every end that it reached, and where it came to rest', async ({ page }) => {
    await page.context().addCookies([{ name: 'tiller', value: 'open', url: 'http://127.0.0.1:8799' }]);
    await page.goto('/craft/curlew/21');
    await started(page);
    const told = [];
    await page.route('**/craft/curlew/bench', async (route) => {
        const said = route.request().postDataJSON();
        if (said.thing === 'radio:sticks') told.push(Object.fromEntries(said.to.split(',').map((one) => one.split('='))));
        await new Promise((done) => setTimeout(done, 300));
        await route.continue();
    });
    const box = await boxOf(page.locator('#gimbal-right .well'));
    const [x, y, reach] = [box.x + box.width / 2, box.y + box.height / 2, box.width / 2];
    await page.mouse.move(x, y);
    await page.mouse.down();
    for (const [dx, dy] of [
        [1, -1],
        [1, 1],
        [-1, 1],
        [-1, -1],
    ])
        // prettier-ignore
        await page.mouse.move(x + 1.2 * dx * reach, y + 1.2 * dy * reach, { steps: 4 });
    await page.mouse.up();
    await expect(page.locator('#tiller')).toHaveAttribute('aria-busy', 'true');
    await expect(page.locator('#tiller')).toHaveAttribute('aria-busy', 'false');
    const ends = new Set(told.map(({ roll, pitch }) => `${roll} ${pitch}`));
    for (const end of ['1.000 1.000', '1.000 -1.000', '-1.000 1.000', '-1.000 -1.000']) expect([...ends]).toContain(end);
    expect(Number(told.at(-1).roll)).toBe(0);
    expect(Number(told.at(-1).pitch)).toBe(0);
    expect(told.length).toBeLessThanOrEqual(8);
});

test('what comes while a form is on its way is not forgotten with the page that answers it', async ({ page }) => {
    // The page that the bench answers with is drawn before the ESCs are asked, and comes right after they answered.
    await page.addInitScript(() => {
        const plain = window.fetch;
        window.fetch = async (...asked) => {
            const answer = await plain(...asked);
            const at = String(asked[0]?.url ?? asked[0]);
            if (at.endsWith('/escs/read')) window.isRead?.();
            if (at.endsWith('/bench')) await window.read;
            return answer;
        };
    });
    await link(page, 'curlew');
    await put(page, 'pack', false);
    await expect(page.locator('.order')).not.toContainText('ESCs ✓');
    await page.evaluate(() => {
        window.read = new Promise((done) => (window.isRead = done));
    });
    const read = page.waitForResponse('**/escs/read');
    await put(page, 'pack', true);
    expect((await read).status()).toBe(200);
    await expect(page.locator('.order')).toContainText('ESCs ✓');
});
