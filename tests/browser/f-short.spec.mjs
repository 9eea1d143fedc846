// A craft with Dunlin's mistakes: from its first link to a clean bill in 60 pointer actions and 4 Commits at most.
import { boxOf, expect, started, test } from './hands.mjs';

const FAULTS = ['board_turned', 'board_crooked', 'outputs_mixed', 'directions_wrong', 'odd_esc', 'magnets_miscounted', 'receiver_unset'];

test('a craft full of mistakes is put right in 60 pointer actions and 4 Commits', async ({ page, baseURL }) => {
    const made = await page.request.post('/workshop/new', {
        headers: { Origin: baseURL, Accept: 'application/json' },
        form: {
            name: 'Stint',
            frame: 'rush-140',
            motor: 'whin-14',
            prop: 'reed-76-3',
            esc: 'osier-20',
            pack: 'sedge-4-085',
            board: 'MARL-F4',
            receiver: 'rill-c',
            'extras[heron-400]': '1',
            built: 'faults',
            seed: '3',
            ...Object.fromEntries(FAULTS.map((f) => [`faults[${f}]`, '1'])),
        },
    });
    expect(made.status()).toBe(200);
    let actions = 0;
    let commits = 0;
    const h1 = page.getByRole('heading', { level: 1 });
    const click = async (what) => {
        await started(page);
        await what.click();
        actions++;
    };
    const button = (name) => page.getByRole('button', { name, exact: true });
    const go = async (sheet) => {
        await click(page.locator('.tabs a', { hasText: sheet }));
        await expect(page.locator('.tabs [aria-current]')).toContainText(sheet);
        await started(page);
    };
    const middle = async (of) => {
        const box = await boxOf(of);
        return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
    };
    const commit = async (why) => {
        await started(page);
        const revision = page.locator('.title .fig').nth(1);
        const before = await revision.innerText();
        await page.keyboard.press('t');
        await page.getByLabel('Why').fill(why);
        await page.keyboard.press('Control+Enter');
        await expect(revision).not.toHaveText(before, { timeout: 60_000 });
        commits++;
    };
    // A Commit writes what its tray showed: whoever presses it waits until what was staged last is drawn there.
    const stage = async (name) => {
        const drawn = page.waitForEvent('response', (r) => r.request().method() === 'GET' && /\/craft\/\w+\/1\d/.test(r.url()));
        await click(button(name));
        await drawn;
        await expect(page.locator('html[aria-busy]')).toHaveCount(0);
    };
    const staged = (n) => expect(page.locator('.tray-tab')).toHaveText(n);

    // 11: cable, link, props off, pack.
    await page.goto('/craft/stint/11');
    await click(page.locator('#thing-cable'));
    await click(button('Link'));
    await expect(h1).toContainText('answers');
    await click(page.locator('#thing-props'));
    await click(page.locator('#thing-pack'));
    await expect(page.locator('.order')).toContainText('ESCs ✓');

    // 13: each wire by one pull.
    await go('Wiring');
    const spot = (id) => page.locator(`[data-spot="${id}"] circle`);
    const wires = [
        ['rill-c.v', '4V5'],
        ['rill-c.gnd', 'GND-L2'],
        ['rill-c.tx', 'RX1'],
        ['rill-c.rx', 'TX1'],
        ['heron-400.v', '9V'],
        ['heron-400.gnd', 'GND-R6'],
        ['heron-400.one', 'TX2'],
    ];
    for (const [i, [from, to]] of wires.entries()) {
        await started(page);
        const [a, b] = [await middle(spot(from)), await middle(spot(to))];
        await page.mouse.move(a.x, a.y);
        await page.mouse.down();
        await page.mouse.move((a.x + b.x) / 2, (a.y + b.y) / 2);
        await page.mouse.move(b.x, b.y);
        await page.mouse.up();
        actions++;
        await expect(page.locator('.wire')).toHaveCount(i + 1);
    }
    await click(button('Stage these settings'));
    await expect(h1).toContainText('staged');

    // 14: two poses.
    await go('Frame');
    const tilt = async (to) => {
        await page.getByLabel('Tilt of the craft').selectOption(to);
        actions++;
        await page.waitForTimeout(1500);
    };
    await click(button('It is level'));
    await expect(button('Take it again')).toHaveCount(1);
    await tilt('nose_up');
    await click(button('The nose is up'));
    await expect(h1).toContainText('The board sits turned');
    await click(button('Stage this mounting'));
    await expect(h1).toContainText('staged');
    await tilt('level');

    // 15: each pad is held, its wire pulled to the motor that turns, the arc there dragged its way; twice, as the second round proves it.
    await go('Motors');
    await click(button('The props are off'));
    const turning = page.locator('[data-live-turning]');
    const show = async (output) => {
        await expect(page.locator(`#pad-${output}`)).toHaveClass(/next/);
        await started(page);
        const from = await middle(page.locator(`#pad-${output} circle`));
        await page.mouse.move(from.x, from.y);
        await page.mouse.down();
        await expect(turning).toContainText('turns');
        const words = await turning.innerText();
        const place = words.split(' turns')[0].replace(' ', '_');
        const way = words.includes('↻') ? 1 : -1;
        const to = await middle(page.locator(`#place-${place} .motor`));
        await page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2);
        await page.mouse.move(to.x + 4, to.y - 3);
        await page.mouse.up();
        actions++;
        await expect(turning).toHaveText('motors still');
        const arc = page.locator(`#arc-${place}`);
        await expect(arc).toHaveAttribute('data-way', '0');
        const reach = 0.5 * (await boxOf(arc.locator('.open'))).width;
        await page.mouse.move(to.x, to.y - reach);
        await page.mouse.down();
        for (const deg of [15, 35, 60])
            await page.mouse.move(to.x + way * reach * Math.sin((deg * Math.PI) / 180), to.y - reach * Math.cos((deg * Math.PI) / 180));
        await page.mouse.up();
        actions++;
        await expect(arc).toHaveAttribute('aria-valuenow', String(way));
    };
    await expect(page.locator('#pad-1')).toHaveAttribute('aria-disabled', 'false');
    for (const output of [1, 2, 3, 4]) await show(output);
    await expect(h1).toContainText(/outputs go to other motors.*turn the wrong way/);
    const before = await page.locator('.tray-tab').innerText();
    await click(button('Stage pad map and directions'));
    await expect(page.locator('.tray-tab')).not.toHaveText(before);
    await started(page);
    await commit('as it was built');
    for (const output of [1, 2, 3, 4]) await show(output);
    await expect(h1).toContainText('Every output drives its motor, and every motor turns as it should.');

    // 12: the odd ESC is brought level with the others.
    await go('Firmware');
    await click(page.getByRole('link', { name: 'ESCs', exact: true }).last());
    await click(page.getByRole('link', { name: 'Choose Withy 1.4.0 at 20 kHz' }));
    await click(page.locator('#esc-write-button'));
    await expect(h1).toContainText('All 4 ESCs run Withy 1.4.0.', { timeout: 90_000 });

    // 14: level, now that the mounting is on the board.
    await go('Frame');
    await page.waitForTimeout(1500);
    await stage('Use this as level');
    await staged(/[12] staged/);
    await commit('level on the desk');

    // 15: what the shafts say, and the idle.
    await go('Motors');
    const hold = async (id, says) => {
        const box = await boxOf(page.locator(id));
        await page.mouse.move(box.x + 30, box.y + 10);
        await page.mouse.down();
        await expect(h1).toContainText(says, { timeout: 40_000 });
        await page.mouse.up();
        actions++;
        await started(page);
    };
    await click(page.getByRole('link', { name: 'Rpm feedback' }));
    await expect(page).toHaveURL(/do=feedback/);
    await hold('#feedback', 'the motors have 12 magnets, not 14');
    await click(button('Stage 12 magnets'));
    await staged(/1 staged/);
    await click(page.getByRole('link', { name: 'Slow rise' }));
    await expect(page).toHaveURL(/do=rise/);
    await hold('#rise', 'is the lowest idle output to trust');
    await stage('Stage this idle output');
    await staged(/[12] staged/);
    await commit('the shafts, and the idle');

    // The bill: nothing of Build is open.
    await expect(page.locator('#points-1 summary')).toHaveAttribute('aria-label', 'Build: nothing open');
    for (const [sheet, words] of [
        ['11', /answers with Loam/],
        ['13', 'the settings agree with it'],
        ['14', 'and the settings say so'],
        ['15', 'every motor turns as it should'],
        ['15?do=feedback', '12 magnets is right'],
    ]) {
        await page.goto(`/craft/stint/${sheet}`);
        await expect(h1).toContainText(words);
    }
    console.log(`${actions} pointer actions, ${commits} Commits`);
    expect(actions).toBeLessThanOrEqual(60);
    expect(commits).toBeLessThanOrEqual(4);
    await page.request.post('/craft/stint/put-away', { headers: { Origin: baseURL } });
});
