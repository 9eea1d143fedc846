// Part 4: Bittern from a module that is rubbish to the board to a rehearsed return; its overlay by mouse and by keys; its camera.
import { readFileSync } from 'node:fs';
import { boxOf, commit, expect, link, put, started, test } from './hands.mjs';

test.describe.configure({ mode: 'serial' });

const h1 = (page) => page.getByRole('heading', { level: 1 });

const bench = (page, slug, thing, to) => page.request.post(`/craft/${slug}/bench`, { data: { thing, to }, headers: { 'X-Ortholex': '1' } });

async function elsewhere(context, does) {
    const other = await context.newPage();
    await does(other);
    await other.close();
}

async function go(page, address) {
    await page.goto(address);
    await started(page);
}

const middle = async (locator) => {
    const b = await boxOf(locator);
    return { x: b.x + b.width / 2, y: b.y + b.height / 2 };
};

test('41: a module is found, its port set, and a fix comes', async ({ page }) => {
    test.setTimeout(120_000);
    await link(page, 'bittern');
    await put(page, 'pack', false);
    await put(page, 'outdoors', false);
    await go(page, '/craft/bittern/41');
    await expect(h1(page)).toContainText('dead on USB alone');
    await put(page, 'pack', true);
    await expect(h1(page)).toContainText('not at the rate its port is set to');
    await page.locator('#find-module').click();
    await expect(page.locator('#module-found')).toContainText('57600 baud', { timeout: 30_000 });
    await page.locator('#stage-port').click();
    await expect(page.locator('#module-found')).toContainText('commit it');
    await commit(page, 'the port as the module speaks');
    await expect(h1(page)).toContainText('go outside', { timeout: 20_000 });
    await put(page, 'outdoors', true);
    await expect(h1(page)).toContainText('It knows where it is', { timeout: 40_000 });
    await expect(page.locator('.satellite.used').first()).toBeVisible();
    await expect(page.locator('#cep')).toContainText('half within', { timeout: 40_000 });
});

test('41: the compass is switched on, turned in the hand, and calibrated', async ({ page }) => {
    test.setTimeout(180_000);
    await go(page, '/craft/bittern/41?look=compass');
    await expect(h1(page)).toContainText('The compass is off');
    await page.locator('#location-fields input[type="checkbox"]').check();
    await expect(page.locator('.tray-tab')).toContainText('1 staged');
    await commit(page, 'a compass');
    await expect(h1(page)).toContainText('Turn the craft');
    await page.locator('#turn-compass').click();
    await page.locator('#tumble').click();
    await expect(page.locator('.patch.filled').nth(20)).toBeVisible({ timeout: 60_000 });
    await expect(h1(page)).toContainText('Found. Stage it', { timeout: 90_000 });
    await expect(page.locator('#lies')).toContainText('roll 180°, pitch 0°, yaw 90°');
    await page.locator('#stage-compass').click();
    await expect(page.locator('.tray-tab')).toContainText(/[1-9]\d* staged/);
    await started(page);
    await commit(page, 'calibrated');
    await expect(h1(page)).toContainText('The compass is calibrated');
    await expect(page.locator('#declination')).toContainText('from its own position');
});

test('41: what the motors do to the compass is measured once the props are declared off', async ({ page }) => {
    test.setTimeout(90_000);
    await go(page, '/craft/bittern/41?look=compass');
    await page.locator('#raise-motors').click();
    await expect(page.locator('#compass-problem')).toContainText('before the props are declared off');
    await expect(page.locator('.job')).toHaveCount(0);
    await put(page, 'props', false);
    await page.locator('#declare-props').click();
    await expect(page.locator('#declare-props')).toHaveCount(0);
    await started(page);
    await page.locator('#raise-motors').click();
    await expect(page.locator('#disturbance')).toContainText('at hover', { timeout: 60_000 });
});

test('41: the way home is rehearsed, and what happens to who arms before the fix', async ({ page }) => {
    test.setTimeout(120_000);
    await go(page, '/craft/bittern/41?look=home');
    await page.locator('#rehearse-return input[name="distance"]').fill('80');
    await page.locator('#fly-return').click();
    await expect(h1(page)).toContainText('It comes home', { timeout: 60_000 });
    await expect(page.locator('#way-home .flown.fly_back')).toHaveCount(2);
    // Let down, not dropped: thirty metres at a metre a second.
    expect(Number((await page.locator('#flown-return').innerText()).match(/at ([\d.]+) m\/s/)[1])).toBeLessThan(4);
    await expect(page.locator('#gifts li.there')).toHaveCount(3);
    await page.locator('#rehearse-return select[name="wrong"]').selectOption('before_fix');
    await page.locator('#fly-return').click();
    await expect(page.locator('#flown-return')).toContainText('Never arm before the fix', { timeout: 60_000 });
    await expect(page.locator('.false-home')).toBeVisible();
});

test('42: an item is put by mouse, dragged, and what would cover another goes back', async ({ page, context }) => {
    await go(page, '/craft/bittern/42?layout=1');
    const picture = page.locator('#picture');
    const box = await boxOf(picture);
    const cell = (column, row) => ({ x: ((column + 0.5) * box.width) / 28, y: ((row + 0.5) * box.height) / 15 });
    await picture.click({ position: cell(10, 3) });
    await expect(page.locator('#put-column')).toHaveValue('10');
    await expect(page.locator('#put-row')).toHaveValue('3');
    await page.locator('#put-item').selectOption('throttle');
    // What is chosen stays chosen while the page is drawn anew for something else.
    const drawn = page.evaluate(() => new Promise((r) => addEventListener('turbo:render', () => r(true), { once: true })));
    await elsewhere(context, async (other) => {
        await other.goto('/craft/bittern/71?all=1');
        await other.getByLabel('Settings as YAML').fill('gain.pitch.i: 71');
        await other.getByRole('button', { name: 'Check and stage' }).click();
        expect(await drawn).toBe(true);
        await other.goto('/craft/bittern/61');
        await started(other);
        await other.keyboard.press('t');
        await other.getByRole('button', { name: 'Discard all' }).click();
        await expect(other.locator('.tray-tab')).toBeHidden();
    });
    await expect(page.locator('.tray-tab')).toBeHidden();
    await expect(page.locator('#put-item')).toHaveValue('throttle');
    await page.locator('#put-there').click();
    const item = page.locator('#item-throttle');
    await expect(item).toHaveAttribute('data-c', '10');
    await started(page);
    const from = await middle(item);
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    await page.mouse.move(from.x + (2 * box.width) / 28, from.y, { steps: 4 });
    await page.mouse.up();
    await expect(item).toHaveAttribute('data-c', '12');
    await expect(item).toHaveAttribute('data-r', '3');
    // Onto the flight time: refused in words, and it stands where it stood.
    const other = await middle(page.locator('#item-flight_time'));
    const again = await middle(item);
    await page.mouse.move(again.x, again.y);
    await page.mouse.down();
    await page.mouse.move(other.x, other.y, { steps: 6 });
    await page.mouse.up();
    await expect(page.locator('#said')).toContainText('Throttle would cover time in flight');
    await expect(item).toHaveAttribute('data-c', '12');
});

test('42: the same by keys alone', async ({ page }) => {
    await go(page, '/craft/bittern/42?layout=1');
    await page.locator('#picture').focus();
    for (const key of ['ArrowDown', 'ArrowDown', 'ArrowDown', 'ArrowDown', 'ArrowDown', 'ArrowRight', 'ArrowRight'])
        await page.keyboard.press(key);
    await expect(page.locator('#put-row')).toHaveValue('5');
    await page.keyboard.press('Enter');
    await expect(page.locator('#put-item')).toBeFocused();
    await page.locator('#put-item').selectOption('current');
    await page.keyboard.press('Tab');
    await page.keyboard.press('Tab');
    await page.keyboard.press('Tab');
    await page.keyboard.press('Enter');
    const item = page.locator('#item-current');
    await expect(item).toHaveAttribute('data-r', '5');
    await item.focus();
    await page.keyboard.press('ArrowDown');
    await expect(item).toHaveAttribute('data-r', '6');
    await item.focus();
    await page.keyboard.press('Delete');
    await expect(item).toHaveCount(0);
});

test('42: a wrong source and wrong firmware are found and mended, and the picture taken away', async ({ page }) => {
    test.setTimeout(90_000);
    await go(page, '/craft/bittern/42');
    await expect(h1(page)).toContainText('not the pack');
    await page.locator('#mend-source').click();
    await expect(h1(page)).toContainText('staged: commit it');
    await page.locator('#chip').getByRole('button', { name: 'Write 2.1.0' }).click();
    await expect(page.locator('#chip')).toContainText(/it suits Loam 26\.\d\d/, { timeout: 40_000 });
    await commit(page, 'layout and source');
    await expect(h1(page)).not.toContainText('not the pack');
    await page.waitForTimeout(1500);
    await bench(page, 'bittern', 'pack_used', '0.85');
    await expect(page.locator('#source')).toContainText('follows', { timeout: 20_000 });
    await bench(page, 'bittern', 'pack_used', '0.02');
    const [png] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'PNG' }).click()]);
    expect(
        readFileSync(await png.path())
            .subarray(1, 4)
            .toString(),
    ).toBe('PNG');
    const [svg] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'SVG' }).click()]);
    const text = readFileSync(await svg.path(), 'utf8');
    expect(text).toContain('<svg');
    expect(text).not.toContain('class="cursor"');
});

test('43: a camera is dragged to where it binds, and set up', async ({ page }) => {
    await go(page, '/craft/bittern/43');
    const handle = page.locator('#tilt-handle');
    const from = await middle(handle);
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    await page.mouse.move(from.x - 60, from.y - 150, { steps: 8 });
    await page.mouse.up();
    await expect(page.locator('#seen-says')).not.toContainText('point 0°');
    await page.locator('#mark-us').fill('1478');
    await page.locator('#level').click();
    await expect(page.locator('[data-setting="camera.middle_us"]')).toHaveValue('1478');
    await started(page);
    await page.locator('#mark-us').fill('1294');
    await page.locator('#points-deg').fill('20');
    await page.locator('#points').click();
    await expect(page.locator('[data-setting="camera.us_per_deg"]')).toHaveValue('9.2');
    await started(page);
    // By keys: the servo follows, and says when it strains.
    await handle.focus();
    for (let i = 0; i < 9; ++i) await page.keyboard.press('PageUp');
    await expect(page.locator('#seen-says')).toContainText('and buzzes', { timeout: 10_000 });
    for (let i = 0; i < 3; ++i) await page.keyboard.press('PageDown');
    await expect(page.locator('#seen-says')).not.toContainText('and buzzes', { timeout: 10_000 });
    await page.locator('#binds').click();
    await expect(page.locator('[data-setting="camera.low_us"]')).not.toHaveValue('1100');
    await commit(page, 'the camera');
    await expect(h1(page)).toContainText('The camera looks from');
});

test('43: the place is asked, its law held, and a channel chosen', async ({ page }) => {
    await go(page, '/craft/bittern/43?look=video&taken=5740,5800&pilots=2');
    await expect(h1(page)).toContainText('Where will it be flown?');
    await expect(page.locator('#power button[value="400"]')).toBeDisabled();
    await expect(page.locator('#best-set')).toContainText('nobody disturbs anybody');
    await page.locator('#place-of').selectOption('European short-range devices');
    await page.locator('#set-place').click();
    await expect(page.locator('#power button[value="25"]')).toBeEnabled();
    await expect(page.locator('#power button[value="100"]')).toBeDisabled();
    // Within the law there is less room.
    await expect(page.locator('#best-set')).toContainText('no set has fewer');
    await page.locator('.channel[data-mhz="5865"]').click();
    await expect(h1(page)).toContainText('5865 MHz');
    await page.locator('#read-table').click();
    await expect(page.locator('#power')).toContainText('as read from the module');
    await expect(page.locator('#heat')).toContainText('°C');
});

test('all three in both themes and at 900 px', async ({ page, context, baseURL }) => {
    for (const theme of ['light', 'dark']) {
        await context.addCookies([{ name: 'theme', value: theme, url: baseURL }]);
        await page.setViewportSize({ width: 900, height: 800 });
        for (const address of ['41', '41?look=compass', '41?look=home', '42', '43', '43?look=video']) {
            await go(page, `/craft/bittern/${address}`);
            await expect(page.locator('html')).toHaveAttribute('data-theme', theme);
            await expect(h1(page)).not.toBeEmpty();
            const over = await page.evaluate(() =>
                [...document.querySelectorAll('.head, .tabs, .drawing, .says, .bench')]
                    .filter((e) => e.scrollWidth > e.clientWidth + 1)
                    .map((e) => e.className),
            );
            expect(over, address).toEqual([]);
        }
    }
});
