// Part 6: the loop of a tune on Curlew by mouse: noise, a filter by what-if, gains, a series of feed-forward, a tune taken over.
import { boxOf, commit, expect, fly, link, ready, started, test } from './hands.mjs';

test.describe.configure({ mode: 'serial' });

const h1 = (page) => page.getByRole('heading', { level: 1 });
const figure = async (locator) => Number((await locator.innerText()).match(/[\d.]+/)[0]);

async function go(page, address) {
    await page.goto(address);
    await started(page);
}

async function discard(page) {
    await page.request.post('/craft/curlew/discard', { headers: { 'X-Ortholex': '1' } });
}

// As Curlew comes: what other walks have made of it is put back, ringing roll and all.
async function asItCame(page) {
    const headers = { 'X-Ortholex': '1' };
    await discard(page);
    const data = {
        values: {
            ...{ 'gain.roll.p': 33, 'gain.roll.i': 70, 'gain.roll.d': 1.7, 'gain.roll.ff': 0 },
            ...{ 'gain.pitch.p': 30, 'gain.pitch.i': 80, 'gain.pitch.d': 2.8, 'gain.pitch.ff': 0 },
            ...{ 'rate_path.stage.1.cutoff_hz': 180, 'd_path.stage.1.cutoff_hz': 95, 'notch.motor.orders': '1,2' },
        },
    };
    expect((await page.request.post('/craft/curlew/stage', { data, headers })).ok()).toBe(true);
    await go(page, '/craft/curlew/71');
    const seen = await page.locator('#commit input[name="seen"]').inputValue();
    if ((await page.locator('.tray-tab').innerText()).trim() === '0 staged') return;
    const commit = await page.request.post('/craft/curlew/commit', { data: { reason: 'as it came', knowing: '1', seen }, headers });
    expect(commit.ok(), await commit.text()).toBe(true);
}

test('62: filters are seen, dragged with what they would leave, added and taken away, and a point of the curve is staged', async ({
    page,
}) => {
    test.setTimeout(180_000);
    await link(page, 'curlew');
    await asItCame(page);
    await ready(page, 'curlew');
    const hover = await fly(page, 'curlew', /Hover and climb/);
    await go(page, `/craft/curlew/62?log=${hover}`);
    await expect(h1(page)).toContainText(/The filters leave [\d.]+ \/ [\d.]+ \/ [\d.]+ deg\/s/);
    // What today's chain leaves is what the log itself has: the figure of 53.
    const left = await figure(page.locator('#left-of-noise tbody tr').first().locator('td').first());
    const logged = await (await page.request.get(`/craft/curlew/logs/${hover}/analysis.json`)).json();
    expect(Math.abs(left - logged.report.noise.residual_dps.roll)).toBeLessThan(0.006);
    const grip = page.locator('[data-of="rate_path-1"]');
    await expect(grip).toHaveAttribute('role', 'slider');
    const box = await boxOf(grip);
    await page.mouse.move(box.x + box.width / 2, box.y + 8);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width / 2 + 70, box.y + 8, { steps: 8 });
    // While it is held: what it would leave, and what it would do to the loop.
    await expect(page.locator('#filter-live')).toContainText(/roll: [\d.]+ deg\/s left · [\d.]+ ms · margin [\d.]+ · peak [\d.]+/);
    await page.mouse.up();
    await expect(page.locator('.tray-tab')).toHaveText('1 staged');
    await expect(h1(page)).toContainText('As staged, the filters leave');
    await expect(page.locator('#loop-margins .staged-text').first()).toBeVisible();
    // Taken away and added again, by what stands there.
    await page.locator('[data-of="rate_path-1"]').click();
    await page.locator('#fields-rate_path-1').getByRole('button', { name: 'Take it away' }).click();
    await expect(page.locator('[data-of="rate_path-1"]')).toHaveCount(0);
    await page.getByRole('button', { name: 'Add to tracking notches' }).click();
    await expect(page.locator('[data-of="tracking"]')).toHaveCount(2);
    await discard(page);
    await page.reload();
    await started(page);
    // A click on the knee stages its chain.
    const knee = page.locator('#trade-off .candidate.knee');
    await expect(knee).toBeVisible({ timeout: 30_000 });
    await expect(page.locator('#trade-off text.today')).toContainText(/today [\d.]+ deg\/s, [\d.]+ ms/);
    await knee.click();
    await expect(h1(page)).toContainText('As staged, the filters leave');
    await expect(page.locator('#trade-off text.staged')).toBeVisible();
    await discard(page);
});

test('61: the next step of the road is staged, flown, and comes out better; all views of the loop are drawn', async ({ page }) => {
    test.setTimeout(180_000);
    await ready(page, 'curlew');
    const before = await fly(page, 'curlew', /Mixed sticks/);
    await go(page, `/craft/curlew/61?log=${before}&axis=roll`);
    await expect(page.locator('#road-map .here')).toHaveText('damping');
    await expect(page.locator('#road-map')).toContainText(/Next: roll rings: its step peaks at 1\.[2-5]/);
    for (const [what, drawn] of [
        ['push', 'canvas'],
        ['nyquist', 'svg.nyquist'],
        ['bode', 'canvas'],
        ['map', 'svg.gain-map'],
        ['step', 'canvas'],
    ]) {
        await page.locator(`input[name="drawn"][value="${what}"]`).click();
        await expect(page.locator('#gains-plot')).toHaveAttribute('data-what', what);
        await expect(page.locator(`#gains-plot ${drawn}`).first()).toBeVisible();
    }
    const was = await figure(page.locator('#loop-compared tbody tr').first().locator('td').first());
    await page.locator('#stage-next').click();
    await expect(page.locator('.tray-tab')).toHaveText(/[23] staged/);
    await expect(h1(page)).toContainText(/As staged, roll would peak at 1\.0\d instead of 1\.[2-5]/);
    await commit(page, 'the next step of the road');
    const after = await fly(page, 'curlew', /Mixed sticks/);
    await go(page, `/craft/curlew/61?log=${after}&axis=roll`);
    expect(await figure(page.locator('#loop-compared tbody tr').first().locator('td').first())).toBeGreaterThan(Math.max(0.5, was));
    await expect(page.locator('#road-map .here')).not.toHaveText('damping');
});

test('63: feed-forward in steps is one job; where lag is nearest nothing is staged, and there is a way back', async ({ page }) => {
    test.setTimeout(240_000);
    await ready(page, 'curlew');
    await go(page, '/craft/curlew/63');
    await page.locator('#series-vary').selectOption('both-ff');
    await page.locator('#series-from').fill('0');
    await page.locator('#series-to').fill('2');
    await page.locator('#series-plan input[name="steps"]').fill('3');
    await page.getByRole('button', { name: 'Plan it' }).click();
    await expect(h1(page)).toContainText('Flight 1 of 4 is next: feed-forward of roll and pitch at 0.');
    await page.locator('#series-fly').click();
    await expect(page.locator('.job .progress')).toBeVisible();
    await expect(page.locator('#series-flights tbody tr')).toHaveCount(4, { timeout: 200_000 });
    await expect(page.locator('#series-plot .flight')).toHaveCount(4);
    await expect(page.locator('#series-family .curve')).toHaveCount(4);
    const lags = (await page.locator('#series-flights tbody tr td:nth-child(3)').allInnerTexts()).map((t) => Number(t.split(' ')[0]));
    expect(lags[2]).toBeLessThan(lags[1]);
    expect(lags[1]).toBeLessThan(lags[0]);
    await page.locator('#series-take').click();
    await expect(page.locator('.tray-tab')).toHaveText('2 staged');
    await commit(page, 'where lag is nearest nothing');
    await page.locator('#series-end').click();
    await expect(page.locator('#series-plan')).toBeVisible();
    await go(page, '/craft/curlew/73');
    await page
        .getByRole('button', { name: /Stage the way back/ })
        .first()
        .click();
    await expect(page.locator('.tray-tab')).toHaveText('2 staged');
    await discard(page);
});

test("61: a friend's tune is taken over in part, from a file and from another craft", async ({ page }) => {
    await link(page, 'bittern');
    await go(page, '/craft/curlew/61');
    await page.getByRole('link', { name: 'Take over another tune…' }).click();
    await page.locator('#take-over-from select').selectOption({ label: 'Bittern, as last read' });
    await page.locator('#take-over-from').getByRole('button', { name: 'Compare' }).click();
    await expect(h1(page)).toContainText(/\d+ settings would change, taken from Bittern/);
    await expect(page.locator('.says')).toContainText('Its arms span 580 mm, here 216');
    await page.locator('#take-over-file input[type="file"]').setInputFiles({
        name: 'friend.yaml',
        mimeType: 'text/yaml',
        buffer: Buffer.from('gain.roll.p: 28\nmounting.roll_deg: 90\npad.1.drives: none\n'),
    });
    await page.locator('#take-over-file').getByRole('button', { name: 'Compare' }).click();
    await expect(h1(page)).toContainText('1 setting would change, taken from friend.yaml');
    await started(page);
    await page.locator('#stage-taken').click();
    await expect(page.locator('.tray-tab')).toHaveText('1 staged');
    await discard(page);
});

test('61 to 63 in both themes and at 900 px: nothing is cut off', async ({ page }) => {
    for (const theme of ['light', 'dark']) {
        for (const sheet of ['61', '62', '63', 'take-over']) {
            await page.setViewportSize({ width: 900, height: 800 });
            await go(page, `/craft/curlew/${sheet}`);
            const wide = await page.evaluate(() => document.documentElement.scrollWidth);
            expect(wide, `${sheet} in ${theme}`).toBeLessThanOrEqual(900);
        }
        await page.locator('#theme').click();
    }
});
