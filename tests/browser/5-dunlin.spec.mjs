import { boxOf, commit, expect, link, put, started, test } from './hands.mjs';

// One craft, just assembled and full of honest faults, from its first link to a clean bill: each test goes on where the one before ended.
test.describe.configure({ mode: 'serial' });

const h1 = (page) => page.getByRole('heading', { level: 1 });

const turning = (page) => page.locator('[data-live-turning]');
const middle = async (mark) => {
    const box = await boxOf(mark);
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
};
// What the builder sees on the desk: which motor turns, and which way.
async function seen(page) {
    await expect(turning(page)).toContainText('turns');
    const words = await turning(page).innerText();
    return { place: words.split(' turns')[0].replace(' ', '_'), way: words.includes('↻') ? 1 : -1 };
}

// By mouse, in two pulls: the pad is held and its wire pulled to the motor that turns; the arc there is dragged its way.
async function show(page, output) {
    await expect(page.locator(`#pad-${output}`)).toHaveClass(/next/);
    await started(page);
    const from = await middle(page.locator(`#pad-${output} circle`));
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    const { place, way } = await seen(page);
    const to = await middle(page.locator(`#place-${place} .motor`));
    await page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2);
    await page.mouse.move(to.x + 4, to.y - 3);
    await page.mouse.up();
    await expect(turning(page)).toHaveText('motors still');
    const arc = page.locator(`#arc-${place}`);
    await expect(arc).toHaveAttribute('data-way', '0');
    const reach = 0.5 * (await boxOf(arc.locator('.open'))).width;
    await page.mouse.move(to.x, to.y - reach);
    await page.mouse.down();
    for (const deg of [15, 35, 60])
        await page.mouse.move(to.x + way * reach * Math.sin((deg * Math.PI) / 180), to.y - reach * Math.cos((deg * Math.PI) / 180));
    await page.mouse.up();
    await expect(arc).toHaveAttribute('aria-valuenow', String(way));
}

// By keys alone: Space holds, arrows take the wire round the motors, Enter draws it, an arrow turns the arc.
async function showByKeys(page, output) {
    await expect(page.locator(`#pad-${output}`)).toHaveClass(/next/);
    await started(page);
    await expect(page.locator(`#pad-${output}`)).toBeFocused();
    await page.keyboard.down(' ');
    const { place, way } = await seen(page);
    await page.keyboard.up(' ');
    await expect(turning(page)).toHaveText('motors still');
    const chosen = page.locator('.motor-place.chosen');
    do await page.keyboard.press('ArrowRight');
    while ((await chosen.getAttribute('data-motor')) !== place);
    await page.keyboard.press('Enter');
    const arc = page.locator(`#arc-${place}`);
    await expect(arc).toBeFocused();
    await page.keyboard.press(way > 0 ? 'ArrowRight' : 'ArrowLeft');
    await expect(arc).toHaveAttribute('aria-valuenow', String(way));
}

// Board linked, pack on, props off and said so: what every check of the drive asks for.
async function powered(page, sheet) {
    await link(page, 'dunlin');
    await put(page, 'pack', false);
    await expect(page.locator('.order')).not.toContainText('ESCs ✓');
    await put(page, 'props', false);
    await put(page, 'pack', true);
    await expect(page.locator('.order')).toContainText('ESCs ✓');
    await page.goto(`/craft/dunlin/${sheet}`);
    await started(page);
    await page.getByRole('button', { name: 'The props are off' }).click();
    await expect(page.getByRole('button', { name: 'The props are off' })).toHaveCount(0);
    await started(page);
}

async function hold(page, id, done) {
    const box = await boxOf(page.locator(id));
    await page.mouse.move(box.x + 30, box.y + 10);
    await page.mouse.down();
    await expect(page.locator('[data-live-turning]')).toContainText('turn');
    await expect(h1(page)).toContainText(done, { timeout: 20_000 });
    await page.mouse.up();
    await started(page);
}

test('11: cable, link, pack: in this order its ESCs are found by themselves', async ({ page }) => {
    await page.goto('/craft/dunlin/11');
    await expect(h1(page)).toContainText('the USB cable is out');
    await expect(page.locator('.order .now')).toContainText('cable');
    await link(page, 'dunlin');
    await expect(page.locator('.order .now')).toContainText('flight pack');
    await put(page, 'pack', true);
    await expect(page.locator('.order')).toContainText('ESCs ✓');
    await expect(page.locator('.esc-list')).toContainText('dead time 400 ns, pin layout K7, 32 MHz');
    await expect(page.locator('.esc-list')).toContainText('Bracken 6.2.0');
});

test('12: a misfit cannot be written; what fits is written, verified and brings its settings back', async ({ page }) => {
    await link(page, 'dunlin');
    await expect(page.locator('html')).toHaveAttribute('data-started', '1');
    await page.keyboard.press('1');
    await page.keyboard.press('2');
    await expect(page.getByRole('heading', { level: 1 })).toContainText('Marl F4 runs Loam 25.08');
    await expect(page.locator('.shelf')).not.toContainText('pre-release');
    await page.getByRole('link', { name: 'show pre-releases' }).click();
    await expect(page.locator('.shelf')).toContainText('26.10-pre1');
    await page.getByRole('link', { name: "other boards' too" }).click();
    await page.getByRole('link', { name: 'Choose Loam 26.06 for Marl F4 S', exact: true }).click();
    await expect(page.getByRole('heading', { level: 1 })).toContainText('does not fit');
    await expect(page.locator('#fit')).toContainText('It is for Marl F4 S (MARL-F4S); this board is Marl F4 (MARL-F4)');
    await expect(page.locator('#write-button')).toHaveCount(0);

    await page.goto('/craft/dunlin/12');
    await page.getByRole('link', { name: 'Choose Loam 26.06 for Marl F4', exact: true }).click();
    await expect(page.getByRole('heading', { level: 1 })).toContainText('Loam 26.06 fits');
    await page.locator('#write-button').click();
    await expect(page.getByRole('heading', { level: 1 })).toContainText('under way');
    await expect(page.getByText('Written and verified')).toBeVisible({ timeout: 40_000 });
    await expect(page.locator('#link-state')).toContainText('26.06');
    await page.locator('.fates summary', { hasText: 'converted' }).click();
    await expect(page.locator('.fates')).toContainText('motors.idle_permille 75 → motors.idle_pct 7.5');
    await expect(page.locator('.fates')).toContainText('link_loss.tone');
    await page.getByRole('button', { name: 'Seen' }).click();
    await expect(page.getByText('Written and verified')).toBeHidden();
});

test('12: ESCs are flashed; one fails and is written at a second try', async ({ page }) => {
    await powered(page, '12/escs');
    await page.locator('#faults summary').click();
    await page.locator('[data-fault="loose_signal_wire"]').check();
    await page.keyboard.press('Escape');
    await page.getByRole('link', { name: 'Choose Withy 1.4.0 at 40 kHz' }).click();
    await expect(h1(page)).toContainText('fits every ESC');
    await expect(page.locator('#esc-write')).toContainText('converts the ESC from Bracken to Withy');
    await started(page);
    await page.locator('#esc-write-button').click();
    await expect(page.locator('#esc-result')).toContainText('3 written, 1 not', { timeout: 60_000 });
    await expect(page.locator('#esc-result')).toContainText('suspect the signal wire');
    await page.locator('#faults summary').click();
    await page.locator('[data-fault="loose_signal_wire"]').uncheck();
    await page.keyboard.press('Escape');
    await started(page);
    await page.locator('#esc-result').getByRole('button', { name: /^Try/ }).click();
    await expect(page.locator('#esc-result')).toContainText('Written and verified', { timeout: 60_000 });
    await page.reload();
    await expect(h1(page)).toContainText('All 4 ESCs run Withy 1.4.0.');
});

test('13: wires are drawn by mouse and keys, checked, and their settings committed in order', async ({ page }) => {
    await link(page, 'dunlin');
    await page.goto('/craft/dunlin/13');
    const spot = (id) => page.locator(`[data-spot="${id}"] circle`);
    const drag = async (from, to) => {
        await started(page);
        const wires = await page.locator('.wire').count();
        const a = await boxOf(spot(from));
        const b = await boxOf(spot(to));
        await page.mouse.move(a.x + 8, a.y + 8);
        await page.mouse.down();
        await page.mouse.move((a.x + b.x) / 2, (a.y + b.y) / 2);
        await page.mouse.move(b.x + 8, b.y + 8);
        await page.mouse.up();
        await expect(page.locator('.wire')).toHaveCount(wires + 1);
    };
    const keys = async (from, to) => {
        await started(page);
        const wires = await page.locator('.wire').count();
        await page.locator(`[data-spot="${from}"]`).focus();
        await page.keyboard.press('Enter');
        await page.locator(`[data-spot="${to}"]`).focus();
        await page.keyboard.press('Enter');
        await expect(page.locator('.wire')).toHaveCount(wires + 1);
    };
    await drag('rill-c.tx', 'TX1');
    await expect(page.locator('.says')).toContainText('Crossed: TX of Rill C goes to TX1');
    await page.locator('.wire').focus();
    await page.keyboard.press('Delete');
    await expect(page.locator('.wire')).toHaveCount(0);
    await drag('rill-c.tx', 'RX1');
    await drag('TX1', 'rill-c.rx');
    await keys('rill-c.v', '4V5');
    await keys('GND-L2', 'rill-c.gnd');
    await drag('heron-400.v', '9V');
    await drag('heron-400.gnd', 'GND-R6');
    await drag('heron-400.one', 'TX2');
    await expect(h1(page)).toContainText(/The wiring is sound; \d+ settings follow/);
    await expect(page.locator('.says')).toContainText('dead on USB alone');
    await started(page);
    await page.getByRole('button', { name: 'Stage these settings' }).click();
    await expect(h1(page)).toContainText('staged, not yet on the craft');
    await page.locator('.tray-tab').click();
    await expect(page.locator('.effects')).toContainText('restarts twice');
    await commit(page, 'receiver and video');
    await expect(h1(page)).toContainText('the settings agree with it');
    await page.emulateMedia({ media: 'print' });
    await expect(page.locator('.wiring-card')).toContainText('Rill C');
});

test('14: Dunlin shows how its board lies, and the picture follows after', async ({ page }) => {
    await link(page, 'dunlin');
    await page.goto('/craft/dunlin/14');
    await expect(page.getByRole('heading', { level: 1 })).toContainText('Show it');
    await page.getByLabel('Tilt of the craft').selectOption('level');
    await page.waitForTimeout(1500);
    await page.getByRole('button', { name: 'It is level' }).click();
    await expect(page.getByRole('button', { name: 'Take it again' })).toHaveCount(1);
    await page.getByLabel('Tilt of the craft').selectOption('nose_up');
    await page.waitForTimeout(1500);
    await page.getByRole('button', { name: 'The nose is up' }).click();
    await expect(page.getByRole('heading', { level: 1 })).toContainText(
        'The board sits turned 90° to the right; the settings say otherwise.',
    );
    await page.getByLabel('thrust for nose up').check();
    await expect(page.locator('[data-command="pitch"]').first()).toBeVisible();
    await page.getByRole('button', { name: 'Stage this mounting' }).click();
    await expect(page.locator('.tray-tab')).toHaveText('1 staged');
    await page.locator('.tray-tab').click();
    await expect(page.locator('.effects')).toContainText('The board restarts once');
    await expect(page.getByRole('heading', { level: 1 })).toContainText('that is staged, not yet on the craft');
    await commit(page, 'the plug faces the right arm');
    await expect(page.getByRole('heading', { level: 1 })).toContainText('and the settings say so');
    await page.goto('/craft/dunlin/11');
    await expect(page.locator('[data-angle="pitch"]')).toContainText(/pitch 4[1-6]\.\d°/);
    // What is left of a degree or two is taken off by level calibration.
    await page.getByLabel('Tilt of the craft').selectOption('level');
    await page.waitForTimeout(1500);
    await page.goto('/craft/dunlin/14');
    await expect(page.locator('#attitude-says')).toContainText(/roll -?[12]\.\d°/);
    await started(page);
    await page.getByRole('button', { name: 'Use this as level' }).click();
    await expect(page.locator('.tray-tab')).toHaveText('2 staged');
    await commit(page, 'it lies on the level desk');
    await expect(page.locator('#attitude-says')).toContainText(/roll -?0\.\d°, pitch -?0\.\d°/);
});

test('15: each motor is shown; map and directions follow, and a second round proves them', async ({ page }) => {
    await link(page, 'dunlin');
    await page.goto('/craft/dunlin/15');
    await put(page, 'pack', false);
    await expect(h1(page)).toContainText('Nothing turns yet: two things first.');
    await expect(page.locator('#pad-1')).toHaveAttribute('aria-disabled', 'true');
    await powered(page, '15');
    await expect(page.locator('#pad-1')).toHaveAttribute('aria-disabled', 'false');
    for (const output of [1, 2, 3, 4]) await show(page, output);
    await expect(h1(page)).toContainText(
        '3 outputs go to other motors than the settings say, and rear right and rear left turn the wrong way.',
    );
    await page.getByRole('button', { name: 'Stage pad map and directions' }).click();
    await expect(page.locator('.tray-tab')).toHaveText('5 staged');
    await commit(page, 'soldered as the arms lay');
    await expect(page.locator('.tray-tab')).toBeHidden();
    await started(page);
    await page.locator('#pad-1').focus();
    for (const output of [1, 2, 3, 4]) await showByKeys(page, output);
    await expect(h1(page)).toContainText('Every output drives its motor, and every motor turns as it should.');
});

test('15: two wires to one motor cross out, and the one drawn anew makes it whole', async ({ page }) => {
    await powered(page, '15');
    await started(page);
    const pull = async (output, place) => {
        const from = await middle(page.locator(`#pad-${output} circle`));
        const to = await middle(page.locator(`#place-${place} .motor`));
        await page.mouse.move(from.x, from.y);
        await page.mouse.down();
        await page.mouse.move(to.x, to.y, { steps: 4 });
        await page.mouse.up();
        await expect(page.locator(`#pad-${output}`)).toHaveAttribute('data-place', place);
    };
    const were = [];
    for (const pad of [1, 2]) were.push(await page.locator(`#pad-${pad}`).getAttribute('data-place'));
    await pull(2, were[0]);
    await expect(page.locator('.wire.crossed')).toHaveCount(2);
    await expect(page.getByRole('heading', { name: 'That cannot be' })).toBeVisible();
    await pull(2, were[1]);
    await expect(page.locator('.wire.crossed')).toHaveCount(0);
    // Let go over nothing: nothing is said.
    const from = await middle(page.locator('#pad-3 circle'));
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    await page.mouse.move(from.x + 20, from.y - 4, { steps: 3 });
    await expect(page.locator('#rubber')).toBeVisible();
    await page.mouse.up();
    await expect(page.locator('#rubber')).toBeHidden();
    await expect(page.locator('.wire')).toHaveCount(4);
});

test('15: rpm feedback exposes the wrong pole count, and the slow rise finds the idle output', async ({ page }) => {
    await powered(page, '15?do=feedback');
    await page.getByLabel('Rpm feedback', { exact: true }).check();
    await expect(page.locator('.tray-tab')).toHaveText('1 staged');
    await commit(page, 'Withy answers now');
    await hold(page, '#feedback', 'the motors have 12 magnets, not 14');
    await page.getByRole('button', { name: 'Stage 12 magnets' }).click();
    await expect(page.locator('.tray-tab')).toHaveText('1 staged');
    await commit(page, 'as the shafts say');
    await expect(h1(page)).toContainText('Every motor answers without error, and 12 magnets is right.');
    await page.getByRole('link', { name: 'Slow rise' }).click();
    await started(page);
    await hold(page, '#rise', 'is the lowest idle output to trust');
    await page.getByRole('button', { name: 'Stage this idle output' }).click();
    await expect(page.locator('.tray-tab')).toHaveText('1 staged');
    await commit(page, 'lowest without twitching');
});

test('16: the odd one out is set like the others, and the bill is clean', async ({ page }) => {
    await powered(page, '15');
    await page.goto('/craft/dunlin/16');
    await expect(h1(page)).toContainText(/differ|odd one out/);
    await started(page);
    // At the place that departs, in words; there it is set like the others, by mouse.
    const odd = page.locator('.departs').filter({ hasText: 'commutation advance' });
    await expect(odd).toHaveCount(1);
    await odd.getByRole('button', { name: 'like the others' }).click();
    await expect(page.locator('.tray-tab')).toHaveText('1 staged');
    await expect(odd).toContainText('was 22');
    await started(page);
    // For one ESC alone, by keys; then two stand against two, and are named as groups.
    const alone = async (place, value) => {
        await page.locator(`#alone-${place} summary`).focus();
        await page.keyboard.press('Enter');
        await page.getByLabel(`Tone loudness, ${place.replace('_', ' ')}, %`).focus();
        await page.keyboard.press('Control+A');
        await page.keyboard.type(value);
        await page.keyboard.press('Tab');
        await expect(page.locator(`#at-${place} .departs`).filter({ hasText: 'tone loudness' })).toContainText('was 25');
        await started(page);
    };
    await alone('rear_left', '40');
    await expect(page.locator('[data-key="tone_loudness_pct"] .differs')).toHaveText('but rear left');
    await alone('rear_right', '40');
    await expect(page.locator('[data-key="tone_loudness_pct"] .group-of')).toHaveText([/^25 front/, /^40 rear/]);
    await expect(page.locator('#at-front_left .departs').filter({ hasText: 'tone loudness' })).toContainText('like front right');
    // For all, in the list, by keys.
    await page.getByLabel('Tone loudness, all ESCs, %').focus();
    await page.keyboard.type('30');
    await page.keyboard.press('Enter');
    await expect(page.locator('.group-of')).toHaveCount(0);
    await expect(page.locator('.tray-tab')).toHaveText('5 staged');
    await started(page);
    await page.getByLabel('Commutation advance, all ESCs, deg').fill('18');
    await page.keyboard.press('Tab');
    await expect(page.locator('.tray-tab')).toHaveText('8 staged');
    await commit(page, 'alike');
    await expect(page.locator('.departs [data-setting]')).toHaveCount(0);
    await expect(page.locator('.says')).not.toContainText('commutation advance');
    for (const [sheet, words] of [
        ['11', /answers with Loam 26\.06/],
        ['13', 'the settings agree with it'],
        ['14', 'and the settings say so'],
        ['15?do=feedback', '12 magnets is right'],
    ]) {
        await page.goto(`/craft/dunlin/${sheet}`);
        await expect(h1(page)).toContainText(words);
    }
});
