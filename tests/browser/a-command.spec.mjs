// Part 2: Dunlin's radio as people find theirs, brought by showing to where every stick and lever does what the thumb means.
import { boxOf, commit, expect, link, put, started, test } from './hands.mjs';

test.describe.configure({ mode: 'serial' });

const h1 = (page) => page.getByRole('heading', { level: 1 });
const post = (page, path, data = {}) => page.request.post(path, { data, headers: { 'X-Ortholex': '1' } });
const bench = (page, slug, thing, to) => post(page, `/craft/${slug}/bench`, { thing, to });

// As its builder finds it: no port listens, another protocol, not bound, nothing shown.
async function found(page) {
    await link(page, 'dunlin');
    await put(page, 'pack', false);
    await post(page, '/craft/dunlin/discard');
    await post(page, '/craft/dunlin/radio/forget');
    await bench(page, 'dunlin', 'transmitter', '1');
    await bench(page, 'dunlin', 'radio:model', 'Curlew');
    await bench(page, 'dunlin', 'radio:button', '1');
    await put(page, 'cable', false);
    await put(page, 'cable', true);
    await bench(page, 'dunlin', 'radio:bind', '1');
    await bench(page, 'dunlin', 'radio:button', '0');
    await bench(page, 'dunlin', 'radio:model', 'Dunlin');
    await bench(page, 'dunlin', 'transmitter', '0');
    await link(page, 'dunlin');
    const values = { 'receiver.protocol': 'sbus', 'uart.1.role': 'none', 'uart.1.baud': '115200' };
    for (const [i, stick] of ['roll', 'pitch', 'throttle', 'yaw'].entries()) {
        Object.assign(values, { [`channel.${stick}.number`]: i + 1, [`channel.${stick}.reversed`]: false });
        for (const [part, us] of Object.entries({ low: 1000, middle: 1500, high: 2000 })) values[`channel.${stick}.${part}_us`] = us;
    }
    values['channel.dead_band_us'] = 2;
    expect((await post(page, '/craft/dunlin/stage', { values })).status()).toBe(200);
    await page.goto('/craft/dunlin/21');
    await started(page);
    if (await page.locator('.tray-tab').isVisible()) await commit(page, 'as it was found');
    await expect(async () => {
        const now = await (await page.request.get('/craft/dunlin/radio/now.json')).json();
        expect(now.step).toBe('find');
    }).toPass();
}

const gimbal = (page, side) => page.locator(`#gimbal-${side}`);

async function at(page, side) {
    const well = await boxOf(gimbal(page, side).locator('.well'));
    const knob = await boxOf(gimbal(page, side).locator('.knob'));
    const middle = (b) => ({ x: b.x + b.width / 2, y: b.y + b.height / 2 });
    return { centre: middle(well), knob: middle(knob), reach: well.width / 2 };
}

// A stick is taken, led along and let go: all of it one pull of a hand.
async function pull(page, side, way) {
    const { centre, knob, reach } = await at(page, side);
    await page.mouse.move(knob.x, knob.y);
    await page.mouse.down();
    for (const [x, y, ms] of way) {
        await page.mouse.move(centre.x + x * reach, centre.y + y * reach, { steps: 3 });
        await page.waitForTimeout(ms ?? 60);
    }
    await page.mouse.up();
    // However slow the machine: all of it has been told.
    await expect(page.locator('#tiller')).toHaveAttribute('aria-busy', 'false');
}

const round = [];
for (let i = 0; i <= 8; ++i) round.push([1.2 * Math.cos((i * Math.PI) / 4), 1.2 * Math.sin((i * Math.PI) / 4), 160]);
// Into the corners, so that both ends of both axes are reached.
const corners = [
    [1.2, -1.2, 420],
    [1.2, 1.2, 420],
    [-1.2, 1.2, 420],
    [-1.2, -1.2, 420],
];

const asked = (page, words) => expect(page.locator('#radio-asked')).toContainText(words);

async function settingsOf(page) {
    const text = await (await page.request.get('/craft/dunlin/settings.yaml')).text();
    return (name) => Number((text.match(new RegExp(`^${name.replaceAll('.', '\\.')}: (\\S+)`, 'm')) ?? [])[1]);
}

// What the transmitter's memory makes of each stick: end points and sub-trims, on channels of another make's order.
const TRUTH = {
    throttle: [1, 1506 - 460, 1506 + 465],
    roll: [2, 1514 - 440, 1514 + 455],
    pitch: [3, 1489 - 450, 1489 + 435],
    yaw: [4, 1482 - 445, 1482 + 450],
};

async function isSound(page) {
    await expect(h1(page)).toHaveText('The sticks say what you mean.');
    const value = await settingsOf(page);
    for (const [stick, [number, low, high]] of Object.entries(TRUTH)) {
        expect(value(`channel.${stick}.number`), stick).toBe(number);
        expect(Math.abs(value(`channel.${stick}.low_us`) - low), `${stick} low`).toBeLessThanOrEqual(3);
        expect(Math.abs(value(`channel.${stick}.high_us`) - high), `${stick} high`).toBeLessThanOrEqual(3);
    }
    expect(value('channel.dead_band_us')).toBeGreaterThanOrEqual(6);
}

test('21 by mouse: from silence to a sound radio in at most 25 actions', async ({ page }) => {
    await found(page);
    let actions = 0;
    const act = async (what) => {
        ++actions;
        await what;
        await started(page);
    };
    const click = (name) => act(page.getByRole('button', { name }).click());
    await page.goto('/craft/dunlin/21');
    await started(page);
    await expect(h1(page)).toHaveText('The board listens to no receiver yet.');
    await click('Find the receiver');
    await expect(h1(page)).toContainText('the board hears it once this is committed');
    await commit(page, 'the receiver, as it is heard');
    actions += 2;
    await expect(h1(page)).toHaveText('The receiver works, but hears no transmitter.');
    // Bound by hand: its button held while power comes.
    await act(page.locator('#thing-controls').click());
    await act(page.locator('#thing-transmitter').click());
    await expect(page.locator('.receiver')).toContainText('no transmitter');
    await act(page.locator('#thing-cable').click());
    await click('Hold its button');
    await act(page.locator('#thing-cable').click());
    await expect(page.locator('.receiver')).toContainText('waits to be bound');
    await click('Bind');
    await expect(page.locator('.receiver')).toContainText('bound and heard');
    await click('Link once more');
    await expect(h1(page)).toHaveText('Frames arrive. Which channel is which stick is not shown yet.');
    await click('Show which stick is which');
    await asked(page, 'roll');
    await act(
        pull(page, 'right', [
            [1.2, 0, 500],
            [0, 0, 60],
        ]),
    );
    await asked(page, 'pitch');
    await act(
        pull(page, 'right', [
            [0, 1.2, 500],
            [0, 0, 60],
        ]),
    );
    await asked(page, 'throttle');
    await act(pull(page, 'left', [[0, -1.2, 500]]));
    await asked(page, 'yaw');
    await act(
        pull(page, 'left', [
            [1.2, -1.2, 500],
            [0, -1.2, 60],
        ]),
    );
    await click('Stage the order');
    await expect(h1(page)).toHaveText('Each stick has its channel. How far they really reach is not shown yet.');
    await click('Capture the spans');
    await act(pull(page, 'right', [...corners, ...round, [0, 0, 60]]));
    await act(pull(page, 'left', [...corners, ...round, [0, 1.2, 60]]));
    await page.waitForTimeout(900);
    await click('That is all');
    await click('Stage the spans');
    await expect(h1(page)).toHaveText('The sticks will say what you mean once this is committed.');
    await commit(page, 'order, spans and dead band, as shown');
    actions += 2;
    await isSound(page);
    expect(actions).toBeLessThanOrEqual(25);
});

test('21 by keys: the same road, without the mouse', async ({ page }) => {
    await page.context().addCookies([{ name: 'tiller', value: 'open', url: 'http://127.0.0.1:8799' }]);
    await found(page);
    const press = async (name) => {
        await page.getByRole('button', { name, exact: true }).press('Enter');
        await started(page);
    };
    const hold = async (side, keys, ms = 450) => {
        await started(page);
        await gimbal(page, side).focus();
        for (const key of keys) await page.keyboard.down(key);
        await page.waitForTimeout(ms);
        for (const key of [...keys].reverse()) await page.keyboard.up(key);
    };
    // From elsewhere, so that the address tells when it is there; the page is drawn anew a moment after it.
    await page.goto('/craft/dunlin/22');
    await started(page);
    await page.keyboard.press('2');
    await page.keyboard.press('1');
    await expect(page).toHaveURL(/\/21$/);
    await expect(h1(page)).toHaveText('The board listens to no receiver yet.');
    await started(page);
    await expect(page.locator('#tiller')).toBeVisible();
    await press('Find the receiver');
    await expect(h1(page)).toContainText('the board hears it once this is committed');
    await commit(page, 'found');
    await page.locator('#thing-transmitter').press('Enter');
    await expect(page.locator('#thing-transmitter')).toHaveAttribute('aria-pressed', 'true');
    await expect(page.locator('.receiver')).toContainText('no transmitter');
    await started(page);
    await press('Hold its button');
    await expect(page.getByRole('button', { name: 'Let its button go' })).toBeVisible();
    for (const light of ['no power', 'waits to be bound']) {
        await page.locator('#thing-cable').press('Enter');
        await expect(page.locator('.receiver')).toContainText(light);
        await started(page);
    }
    await press('Bind');
    await expect(page.locator('.receiver')).toContainText('bound and heard');
    await press('Link once more');
    await press('Show which stick is which');
    await asked(page, 'roll');
    await hold('right', ['Shift', 'ArrowRight']);
    await asked(page, 'pitch');
    await hold('right', ['Shift', 'ArrowDown']);
    await asked(page, 'throttle');
    await hold('left', ['Shift', 'ArrowUp']);
    await asked(page, 'yaw');
    await hold('left', ['Shift', 'ArrowRight']);
    await press('Stage the order');
    await press('Capture the spans');
    for (let round = 0; round < 2; ++round) {
        for (const way of ['ArrowRight', 'ArrowLeft', 'ArrowUp', 'ArrowDown']) {
            await hold('right', ['Shift', way], 350);
            await page.waitForTimeout(450);
            await hold('left', ['Shift', way], 350);
            await page.waitForTimeout(450);
        }
    }
    await press('That is all');
    await press('Stage the spans');
    // What is committed is what the tray showed: a Commit before it shows the spans is refused.
    await expect(h1(page)).toHaveText('The sticks will say what you mean once this is committed.');
    await commit(page, 'by keys');
    await isSound(page);
});

test('22: curves are dragged and pushed; the test feel goes on and comes back', async ({ page }) => {
    await link(page, 'dunlin');
    await page.goto('/craft/dunlin/22');
    await started(page);
    await expect(h1(page)).toContainText('Full roll stick turns it once round in 0.60 s');
    const point = (name) => page.locator(`[id="point-${name}"]`);
    const drag = async (handle, by) => {
        await started(page);
        const box = await boxOf(handle);
        await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
        await page.mouse.down();
        await page.mouse.move(box.x + box.width / 2 + by.x, box.y + box.height / 2 + by.y, { steps: 5 });
        await page.mouse.up();
    };
    await drag(point('feel.roll.full_dps'), { x: 0, y: -60 });
    await expect(page.locator('.tray-tab')).toHaveText('1 staged');
    await expect(h1(page)).not.toContainText('0.60 s');
    await started(page);
    // Half dragged under quarter: no curve goes through it, and the words say so.
    await drag(point('feel.yaw.half_dps'), { x: 0, y: 46 });
    await expect(
        page
            .locator('.says, #stage-problem')
            .filter({ hasText: /do not rise|does not rise|must rise/ })
            .first(),
    ).toBeVisible();
    await post(page, '/craft/dunlin/discard');
    await page.goto('/craft/dunlin/22');
    await started(page);
    await point('feel.pitch.half_dps').focus();
    await page.keyboard.press('ArrowUp');
    await expect(page.locator('.tray-tab')).toHaveText('1 staged');
    await expect(point('feel.pitch.half_dps')).toHaveAttribute('aria-valuenow', '235');
    await expect(point('feel.pitch.half_dps')).toBeFocused();
    await drag(page.locator('#point-cutoff'), { x: -12, y: -40 });
    await expect(page.locator('.tray-tab')).toHaveText('2 staged');
    await drag(page.locator('#point-hover'), { x: 20, y: 30 });
    await expect(page.locator('.tray-tab')).toHaveText('4 staged');
    await post(page, '/craft/dunlin/discard');
    await page.goto('/craft/dunlin/22');
    await started(page);
    // A friend's feel is seen beside before it is staged.
    await page.locator('#feel-from').selectOption({ index: 1 });
    await page.getByRole('button', { name: 'Show it beside' }).click();
    await expect(page.locator('.beside').first()).toBeAttached();
    await page.getByRole('button', { name: 'Stage the test feel' }).click();
    await expect(h1(page)).toContainText('The test feel is on');
    await commit(page, 'to gather logs');
    await page.goto('/');
    await expect(page.locator('.shop-card', { hasText: 'Dunlin' })).toContainText('The test feel is still on');
    await page.goto('/craft/dunlin/22');
    await started(page);
    await page.getByRole('button', { name: 'Put it back' }).click();
    await expect(page.locator('.tray-tab')).toBeVisible();
    await commit(page, 'as it was');
    await page.goto('/');
    await expect(page.locator('.shop-card', { hasText: 'Dunlin' })).not.toContainText('test feel');
    await page.goto('/craft/dunlin/22');
    await expect(h1(page)).toContainText('once round in 0.60 s');
});

test('22: the live stick rides on the curves', async ({ page }) => {
    await bench(page, 'dunlin', 'transmitter', '1');
    await page.goto('/craft/dunlin/22');
    await started(page);
    const roll = page.locator('[data-live=roll]');
    await expect(roll).toHaveAttribute('cx', /^5[234]/);
    await bench(page, 'dunlin', 'radio:sticks', 'roll=1');
    await expect(roll).toHaveAttribute('cx', /^(49\d|500)/);
    await bench(page, 'dunlin', 'radio:let_go', '1');
});

const cell = (page, name) => page.locator(`#cell-${name}`);
const flick = (page, lever, to) => bench(page, 'dunlin', `radio:lever.${lever}`, String(to));

test('23: levers are shown, actions set by doing, by click and by keys; what is wrong says its mend', async ({ page }) => {
    await link(page, 'dunlin');
    await put(page, 'pack', true);
    await bench(page, 'dunlin', 'transmitter', '1');
    await page.goto('/craft/dunlin/23');
    await started(page);
    await expect(h1(page)).toContainText('No lever has been shown yet');
    await page.getByRole('button', { name: 'Show the levers' }).click();
    await expect(page.getByRole('button', { name: 'These are all' }).first()).toBeVisible();
    await started(page);
    for (const [lever, positions] of [
        ['A', [1, 2, 0]],
        ['B', [1, 2, 0]],
        ['C', [1, 0]],
    ]) {
        for (const to of positions) {
            await flick(page, lever, to);
            await page.waitForTimeout(550);
        }
    }
    await page.getByRole('button', { name: 'These are all' }).first().click();
    await expect(page.locator('.lever-head')).toHaveCount(3);
    await expect(page.locator('#remarks')).toContainText('Nothing arms the craft.');
    await started(page);
    // By doing: the action is chosen, the lever flicked, the cell proposed.
    await page.locator('#choose-arm').click();
    await expect(page.locator('#doing')).toContainText('Flick the lever');
    await started(page);
    await flick(page, 'A', 2);
    await expect(page.locator('#doing')).toContainText('on channel 5, high?');
    await started(page);
    await page.getByRole('button', { name: 'Put it there' }).click();
    await expect(cell(page, 'arm-5-2')).toHaveAttribute('aria-pressed', 'true');
    await expect(page.locator('#remarks')).toContainText('One flick arms');
    await started(page);
    await page.getByRole('button', { name: 'Put the beeper on the position before it' }).click();
    await expect(cell(page, 'beeper-5-1')).toHaveAttribute('aria-pressed', 'true');
    await expect(page.locator('#remarks')).not.toContainText('One flick arms');
    await flick(page, 'A', 0);
    // By click, and by keys.
    await started(page);
    await cell(page, 'angle-6-0').click();
    await expect(cell(page, 'angle-6-0')).toHaveAttribute('aria-pressed', 'true');
    await started(page);
    await cell(page, 'angle-6-0').focus();
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('ArrowRight');
    await expect(cell(page, 'horizon-6-1')).toBeFocused();
    await page.keyboard.press('Enter');
    await expect(cell(page, 'horizon-6-1')).toHaveAttribute('aria-pressed', 'true');
    await started(page);
    await cell(page, 'position_hold-6-2').click();
    await expect(page.locator('#remarks')).toContainText('no position receiver is switched on');
    await expect(page.locator('#remarks').getByRole('link', { name: 'To 41 Location' })).toBeVisible();
    await started(page);
    await cell(page, 'position_hold-6-2').click();
    await expect(page.locator('#remarks')).not.toContainText('position receiver');
    // Together with another lever.
    await started(page);
    await cell(page, 'beeper-7-1').click();
    await expect(cell(page, 'beeper-7-1')).toHaveAttribute('aria-pressed', 'true');
    await started(page);
    await page.getByRole('link', { name: 'beeper on channel 7 high, together with another lever' }).click();
    await page.locator('#together').selectOption('6.0');
    await started(page);
    await page.locator('#looked').getByRole('button', { name: 'Stage it' }).click();
    await expect(cell(page, 'beeper-7-1')).toHaveText('with');
    await started(page);
    await commit(page, 'the map');
    await expect(h1(page)).toContainText('Now: angle; without the cable, arm would be taken.');
    await bench(page, 'dunlin', 'radio:sticks', 'throttle=0.2');
    await flick(page, 'B', 1);
    await expect(h1(page)).toContainText('Now: horizon; arm would be refused: throttle is not low.');
    await expect(page.locator('td.here[data-column="6.1"]').first()).toBeVisible();
    await bench(page, 'dunlin', 'radio:sticks', 'throttle=-1');
    await flick(page, 'B', 0);
    // A knob is cut into as many positions as wanted; what stands between its edges follows.
    await started(page);
    await page.locator('#cut-knob summary').click();
    await page.locator('#cut-knob select').selectOption('11');
    await page.locator('#cut-knob input[name=positions]').fill('4');
    await page.getByRole('button', { name: 'Cut it' }).click();
    await expect(page.locator('.lever-head')).toHaveCount(4);
    await expect(page.locator('[data-column^="11."]').first()).toBeVisible();
    await page.emulateMedia({ media: 'print' });
    await expect(page.locator('.switch-card')).toContainText('beeper (with channel 6 low)');
});

test('Bittern tells its pilot: telemetry by a software UART through two bridged pads, in one Commit', async ({ page }) => {
    await page.context().addCookies([{ name: 'tiller', value: 'open', url: 'http://127.0.0.1:8799' }]);
    await link(page, 'bittern');
    await put(page, 'transmitter', true);
    await put(page, 'pack', true);
    await page.goto('/craft/bittern/21');
    await started(page);
    await expect(page.locator('#telemetry')).toContainText('Nothing goes back to the pilot. It takes 5 settings, in one Commit.');
    await expect(page.locator('[data-told=battery]')).toHaveText('– V');
    await page.getByRole('button', { name: 'Switch telemetry on' }).click();
    await page.locator('.tray-tab').click();
    await expect(page.locator('.effects')).toContainText('restarts twice');
    await commit(page, 'telemetry');
    await expect(page.locator('#telemetry')).toContainText(/battery\s+2\d\.\d V/);
    await expect(page.locator('[data-told=battery]')).toHaveText(/2\d\.\d V/);
    await expect(page.locator('[data-told=position]')).toHaveText('0 satellites');
    await put(page, 'outdoors', true);
    // Its module was told another rate: to the board it is rubbish until its port is set so, and then the fix takes its time.
    const port = async (baud) => {
        await page.request.post('/craft/bittern/stage', {
            data: { values: { 'uart.3.baud': baud } },
            headers: { 'X-Ortholex': '1' },
        });
        await page.goto('/craft/bittern/21');
        await started(page);
        await commit(page, 'the port of its module');
    };
    await port('57600');
    await expect(page.locator('[data-told=position]')).toHaveText(/[1-9]\d* satellites/);
    await port('38400');
    // A pad whose jumper is opened carries nothing back.
    await put(page, 'outdoors', false);
    await put(page, 'pack', false);
    await put(page, 'transmitter', false);
});
