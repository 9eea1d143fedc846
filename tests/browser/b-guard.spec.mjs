// Part 3: Dunlin from all that forbids to armed on the desk; Curlew's radio lost, its cure, and the loss flown; a meter; a repair.
import { readFileSync } from 'node:fs';
import { boxOf, commit, expect, link, put, started, test } from './hands.mjs';

test.describe.configure({ mode: 'serial' });

const h1 = (page) => page.getByRole('heading', { level: 1 });
const post = (page, path, data = {}) => page.request.post(path, { data, headers: { 'X-Ortholex': '1' } });
const bench = (page, slug, thing, to) => post(page, `/craft/${slug}/bench`, { thing, to });

async function go(page, address) {
    await page.goto(address);
    await started(page);
}

test('31: from “will not arm” to armed on the desk, props off', async ({ page }) => {
    await link(page, 'dunlin');
    await put(page, 'pack', false);
    await put(page, 'props', true);
    await post(page, '/craft/dunlin/discard');
    // Its radio as 21 leaves it; no lever arms yet.
    await bench(page, 'dunlin', 'transmitter', '1');
    await bench(page, 'dunlin', 'radio:model', 'Curlew');
    await bench(page, 'dunlin', 'radio:button', '1');
    await put(page, 'cable', false);
    await put(page, 'cable', true);
    await bench(page, 'dunlin', 'radio:bind', '1');
    await bench(page, 'dunlin', 'radio:button', '0');
    await bench(page, 'dunlin', 'radio:sticks', 'throttle=0.5');
    await link(page, 'dunlin');
    const values = {
        'receiver.protocol': 'crsf',
        'uart.1.role': 'receiver',
        'uart.1.baud': '420000',
        'uart.1.inverted': false,
        'action.arm.on_in': '',
    };
    for (const [i, stick] of ['roll', 'pitch', 'throttle', 'yaw'].entries()) {
        Object.assign(values, { [`channel.${stick}.number`]: i + 1, [`channel.${stick}.reversed`]: false });
        for (const [part, us] of Object.entries({ low: 1000, middle: 1500, high: 2000 })) values[`channel.${stick}.${part}_us`] = us;
    }
    expect((await post(page, '/craft/dunlin/stage', { values })).status()).toBe(200);
    await go(page, '/craft/dunlin/31');
    if (await page.locator('.tray-tab').isVisible()) await commit(page, 'a sound radio, and no lever that arms');
    await go(page, '/craft/dunlin/31');
    await expect(h1(page)).toHaveText(/Will not arm: .* things\./);
    const link_ = (place) => page.locator(`#link-${place}`);
    await expect(link_('sticks')).toContainText('Throttle is not low');
    await expect(link_('sticks')).toContainText('No switch is mapped to arm');
    await expect(link_('power')).toContainText('The pack is low, or none is connected');
    await expect(link_('proofs').locator('.whose').first()).toHaveText('ours');
    // Live: what hands do closes links while the page stands open.
    await bench(page, 'dunlin', 'radio:sticks', 'throttle=-1');
    await expect(link_('sticks')).not.toContainText('Throttle is not low');
    await put(page, 'pack', true);
    await expect(link_('power')).toHaveClass(/closed/);
    await expect(page.locator('#arm-here')).toContainText('Take the props off');
    await link_('sticks').getByRole('link', { name: 'Map a lever that arms' }).click();
    await expect(page).toHaveURL(/\/23/);
    expect((await post(page, '/craft/dunlin/stage', { values: { 'action.arm.on_in': '5:1750-' } })).status()).toBe(200);
    await go(page, '/craft/dunlin/31');
    await commit(page, 'lever A arms');
    await expect(link_('sticks')).toHaveClass(/closed/);
    await expect(h1(page)).toContainText('It would arm');
    await put(page, 'props', false);
    await page.locator('#declare-props').click();
    await page.locator('#arm-go').click();
    await started(page);
    await bench(page, 'dunlin', 'radio:lever.A', '0');
    await page.waitForTimeout(300);
    await bench(page, 'dunlin', 'radio:lever.A', '2');
    await expect(h1(page)).toHaveText('Armed.');
    await expect(page.locator('.chain .end')).toContainText('the motors turn');
    await expect(page.locator('[data-live-turning]')).toHaveText('4 motors turn');
    await page.locator('#arm-stop').click();
    await expect(h1(page)).not.toHaveText('Armed.');
    await bench(page, 'dunlin', 'radio:lever.A', '0');
});

test('31: whoever lies about the props is bitten, and it says so', async ({ page }) => {
    await go(page, '/craft/dunlin/31');
    await put(page, 'props', true);
    await page.locator('#arm-go').click();
    await started(page);
    await bench(page, 'dunlin', 'radio:lever.A', '2');
    await expect(page.locator('#arm-here')).toContainText('A prop bit');
    await bench(page, 'dunlin', 'radio:lever.A', '0');
    await bench(page, 'dunlin', 'radio:model', 'Dunlin');
    await bench(page, 'dunlin', 'pack', '0');
});

test('31: a repair opens the right checks again, here and in the Workshop', async ({ page }) => {
    await link(page, 'curlew');
    await go(page, '/craft/curlew/31');
    const proofs = page.locator('#link-proofs');
    await expect(proofs).not.toContainText('was replaced');
    await page.locator('#repair-part').selectOption('motor');
    await page.getByRole('button', { name: 'Open its checks again' }).click();
    await expect(proofs).toContainText('Which motor hangs on which output is to be proved again: a motor was replaced');
    await expect(proofs).toContainText('Which way the motors turn is to be proved again');
    await expect(proofs).not.toContainText('How the board is mounted');
    await go(page, '/');
    await expect(page.locator('body')).toContainText('To be checked again before it flies');
    await go(page, '/craft/curlew/31');
    await page.getByRole('button', { name: 'I looked: it is fine' }).click();
    await expect(proofs).not.toContainText('The props is to be proved');
    await page.locator('#tick-screws').click();
    await expect(page.locator('#tick-screws')).toHaveAttribute('aria-pressed', 'true');
    // Shown again on 15, one motor after the other: the checks close by themselves.
    await put(page, 'pack', true);
    await put(page, 'props', false);
    const places = { 1: ['rear_right', 1], 2: ['front_right', -1], 3: ['rear_left', -1], 4: ['front_left', 1] };
    for (const [pad, [place, direction]] of Object.entries(places)) {
        expect((await post(page, '/craft/curlew/motors/answer', { pad, place, direction })).status()).toBe(200);
    }
    await go(page, '/craft/curlew/31');
    await expect(page.locator('#link-proofs')).not.toContainText('was replaced');
});

test('32: a receiver that repeats is found out, cured, rehearsed, and the loss flown', async ({ page }) => {
    await link(page, 'curlew');
    await put(page, 'props', false);
    await bench(page, 'curlew', 'radio:manner', 'repeats');
    await bench(page, 'curlew', 'transmitter', '1');
    await bench(page, 'curlew', 'radio:lever.B', '0');
    await go(page, '/craft/curlew/32');
    await page.waitForTimeout(600);
    await page.locator('#rehearse').click();
    await expect(page.locator('#rehearse-problem')).toContainText('put a lever up');
    await bench(page, 'curlew', 'radio:lever.B', '2');
    await page.waitForTimeout(400);
    await page.locator('#rehearse').click();
    await expect(h1(page)).toContainText('would never be noticed', { timeout: 25_000 });
    await expect(page.locator('#rehearsal')).toContainText('The receiver repeats what it heard last');
    await expect(page.locator('#rehearsal')).toContainText('Two cures');
    await page.locator('#bench-manner').selectOption('stops');
    await page.waitForTimeout(800);
    await page.locator('#rehearse').click();
    await expect(h1(page)).toContainText('Rehearsed.', { timeout: 25_000 });
    await expect(page.locator('#rehearsal')).toContainText(/The board notices after 0\.[1-3]\d s/);
    // Dragged: hold and descent; then it lapses, and says why.
    await page.locator('#set-link_loss\\.then').selectOption('descend');
    await expect(page.locator('#drag-throttle')).toBeVisible();
    await page.locator('#drag-throttle').focus();
    await page.keyboard.press('PageUp');
    await expect(page.locator('#drag-throttle')).toHaveAttribute('aria-valuenow', '29');
    await started(page);
    const hold = page.locator('#drag-hold');
    await expect(hold).toBeVisible();
    await hold.scrollIntoViewIfNeeded();
    const box = await boxOf(hold);
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + 80, box.y + 8, { steps: 6 });
    await page.mouse.up();
    await expect(page.locator('.tray-tab')).toContainText('3');
    await commit(page, 'descend, not fall');
    await expect(h1(page)).toContainText('Not rehearsed as it is now');
    await expect(page.locator('.under')).toContainText('link_loss.');
    await page.locator('#fly-the-loss').click();
    await expect(page.locator('#path')).toContainText(/on the ground after [\s\S]* m\/s/, { timeout: 30_000 });
    await expect(page.locator('#path svg .curve')).toBeVisible();
    // Read with a crosshair, and taken away as numbers and as a picture.
    const plot = page.locator('#path-plot');
    await started(page);
    await plot.scrollIntoViewIfNeeded();
    await plot.hover({ position: { x: 120, y: 60 } });
    await expect(plot.locator('.crosshair text')).toContainText(/s: height [\d.]+ m/);
    const taken = async (as) => {
        const [file] = await Promise.all([
            page.waitForEvent('download'),
            page.locator(`[data-saves="path-plot"][data-as="${as}"]`).click(),
        ]);
        return readFileSync(await file.path(), 'utf8');
    };
    expect(await taken('csv')).toMatch(/^curve,x_s,y_m\nheight,0\.0\d+,\d/);
    expect(await taken('svg')).toContain('<svg');
});

test('33: a voltage that reads low is held against a meter', async ({ page }) => {
    await link(page, 'dunlin');
    await put(page, 'pack', true);
    await go(page, '/craft/dunlin/33');
    await expect(h1(page)).toContainText('never held against a meter');
    await page.locator('#meter').fill('12,1');
    await page.locator('#calibrate').click();
    await expect(page.locator('#meter-problem')).toContainText('more than a scale is ever off');
    await page.locator('#calibrate-bench').click();
    await expect(page.locator('#said, [role=status]').first()).toContainText('flight-end alarm would have come at 3.55 V');
    await commit(page, 'by the meter');
    await expect(h1(page)).toContainText('Calibrated');
    const meter = Number.parseFloat(await page.locator('[data-live-meter]').innerText());
    const reported = Number.parseFloat(await page.locator('#reported').innerText());
    expect(Math.abs(meter - reported)).toBeLessThan(0.03);
    await page.locator('#pack-fields input[data-setting="pack.cells"]').waitFor();
    await put(page, 'pack', false);
});
