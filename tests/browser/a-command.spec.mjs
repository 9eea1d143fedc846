// Part 2: Dunlin's radio as people find theirs, brought by showing to where every stick and lever does what the thumb means.
import { commit, expect, link, put, started, test } from './hands.mjs';

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
    await post(page, '/craft/dunlin/commit', { reason: 'as it was found' });
    await expect(async () => {
        const now = await (await page.request.get('/craft/dunlin/radio/now.json')).json();
        expect(now.step).toBe('find');
    }).toPass();
}

const gimbal = (page, side) => page.locator(`#gimbal-${side}`);

async function at(page, side) {
    const well = await gimbal(page, side).locator('.well').boundingBox();
    const knob = await gimbal(page, side).locator('.knob').boundingBox();
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
}

const round = [];
for (let i = 0; i <= 8; ++i) round.push([1.2 * Math.cos((i * Math.PI) / 4), 1.2 * Math.sin((i * Math.PI) / 4), 120]);
// Into the corners, so that both ends of both axes are reached.
const corners = [
    [1.2, -1.2, 260],
    [1.2, 1.2, 260],
    [-1.2, 1.2, 260],
    [-1.2, -1.2, 260],
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
    await expect(h1(page)).toHaveText('The receiver speaks, and hears no transmitter.');
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
    await click('That is all of it');
    await click('Stage the spans');
    await expect(h1(page)).toHaveText('The sticks will say what you mean once this is committed.');
    await commit(page, 'order, spans and dead band, as shown');
    actions += 2;
    await isSound(page);
    expect(actions).toBeLessThanOrEqual(25);
});
