import { readFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import { boxOf, expect, idOf, link, readAt, started, test } from './hands.mjs';

const readout = async (page) => Number((await page.locator('#reading').innerText()).split(' ')[0]);

test('who points, turns the wheel and presses keys before anything has come to draw breaks nothing', async ({ page }) => {
    const [one, two] = [await idOf(page, 'curlew', 'C-0001'), await idOf(page, 'curlew', 'C-0002')];
    await page.route('**/*', async (route) => {
        if (['fetch', 'xhr'].includes(route.request().resourceType())) await new Promise((r) => setTimeout(r, 700));
        // A page that has gone on waits for nothing.
        await route.continue().catch(() => {});
    });
    for (const [sheet, drawing] of [
        [`52?log=${one}`, '#traces'],
        [`52?log=${one}&beside[]=${two}`, '#traces'],
        [`53?log=${one}`, '#noise-map'],
        [`53?log=${one}&beside[]=${two}`, '#noise-map'],
    ]) {
        await page.goto(`/craft/curlew/${sheet}`);
        await started(page);
        const box = await boxOf(page.locator(drawing));
        const [x, y] = [box.x + 0.4 * box.width, box.y + 0.4 * box.height];
        await page.mouse.move(x, y);
        await page.mouse.wheel(0, -100);
        await page.mouse.down();
        await page.mouse.move(x + 60, y + 30, { steps: 2 });
        await page.mouse.up();
        await page.mouse.dblclick(x, y);
        await page.locator(drawing).focus();
        for (const key of ['ArrowRight', 'Shift+ArrowLeft', '+', '-', 'End', 'Home']) await page.keyboard.press(key);
        await readAt(page, drawing, { x: 0.4 * box.width, y: 0.4 * box.height }, /\d (s|Hz)/);
    }
});

test('traces zoom and move from the whole flight to ten milliseconds', async ({ page }) => {
    await page.goto(`/craft/curlew/52?log=${await idOf(page, 'curlew', 'C-0001')}`);
    const traces = page.locator('#traces');
    await expect(traces).toHaveAttribute('data-drawn', /\d/);
    const box = await boxOf(traces);
    const span = async () => {
        await page.mouse.move(box.x + 70, box.y + 60);
        const from = await readout(page);
        await page.mouse.move(box.x + box.width - 120, box.y + 60);
        return (await readout(page)) - from;
    };
    expect(await span()).toBeGreaterThan(25);
    // Drag a part.
    await page.mouse.move(box.x + 300, box.y + 60);
    await page.mouse.down();
    await page.mouse.move(box.x + 400, box.y + 60, { steps: 5 });
    await page.mouse.up();
    expect(await span()).toBeLessThan(8);
    // Wheel in as far as it goes.
    await page.mouse.move(box.x + 400, box.y + 60);
    for (let i = 0; i < 45; i++) await page.mouse.wheel(0, -200);
    const least = await span();
    expect(least).toBeLessThan(0.0101);
    expect(least).toBeGreaterThan(0.005);
    await expect(page.locator('#values')).toContainText('deg/s');
    // Keys: move right, out again, all.
    await traces.focus();
    const at = await readout(page);
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('ArrowRight');
    // Two samples on: the crosshair goes sample by sample, the view stays.
    expect((await readout(page)) - at).toBeGreaterThan(0.0005);
    expect((await readout(page)) - at).toBeLessThan(0.003);
    await page.keyboard.press('Shift+ArrowRight');
    await page.mouse.move(box.x + box.width - 121, box.y + 61);
    expect(await readout(page)).toBeGreaterThan(at);
    await page.keyboard.press('-');
    expect(await span()).toBeGreaterThan(least * 1.5);
    await page.keyboard.press('Home');
    expect(await span()).toBeGreaterThan(25);
    await page.mouse.move(box.x + 400, box.y + 60);
    await page.keyboard.press('End');
    expect(await span()).toBeLessThan(0.0101);
    await page.getByLabel('Rows of traces').selectOption('roll');
    await page.mouse.move(box.x + 300, box.y + 60);
    await expect(page.locator('#values')).toContainText('error, roll');
    await expect(page.locator('#values')).toContainText('all terms, roll');
    // Rows and zoom are there again after a reload.
    await page.reload();
    await readAt(page, '#traces', { x: 300, y: 61 }, ' s');
    await expect(page.locator('#values')).toContainText('error, roll');
    expect(await span()).toBeLessThan(0.0101);
    await traces.focus();
    await page.keyboard.press('Home');
    await page.getByLabel('Rows of traces').selectOption('motors');
    await page.mouse.move(box.x + 300, box.y + 60);
    await expect(page.locator('#values')).toContainText('rpm');
    await page.getByLabel('Go to time, seconds').fill('20');
    await page.keyboard.press('Tab');
    await page.getByRole('button', { name: 'Zoom in' }).click();
    await expect(page.locator('#there .disc').first()).toBeVisible();
    const [numbers] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'CSV' }).click()]);
    const rows = readFileSync(await numbers.path(), 'utf8').split('\n');
    expect(rows[0]).toContain('time_s,output_front_right_pct_least');
    expect(rows.length).toBeGreaterThan(100);
});

test('noise shows peaks by axis, two logs together, and exports', async ({ page }) => {
    await page.goto(`/craft/curlew/53?log=${await idOf(page, 'curlew', 'C-0002')}`);
    // The map first, with its ridges; then the spectrum.
    await expect(page.locator('#noise-map')).toBeVisible();
    await readAt(page, '#noise-map', { x: 300, y: 200 }, /\d+ %\s+\d+ Hz/);
    await page.getByRole('button', { name: 'Spectrum wide' }).click();
    await expect(page.locator('#noise-plot canvas')).toBeVisible();
    await expect(page.getByRole('heading', { level: 1 })).toContainText('deg/s RMS');
    await page.getByLabel('pitch').check();
    await readAt(page, '#noise-plot .u-over', { x: 200, y: 100 }, /Hz\s+measured/);
    await page.getByLabel('beside it').selectOption({ index: 1 });
    await expect(page.locator('.says')).toContainText('Changed since');
    await expect(page.getByRole('heading', { level: 1 })).toContainText(/quieter|louder|shake alike/);
    await expect(page.locator('#noise-plot canvas')).toBeVisible();
    const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'CSV' }).click()]);
    const text = readFileSync(await file.path(), 'utf8').split('\n');
    expect(text[0]).toContain('hz,measured_db,filtered_db');
    // A log of 1 kHz tells up to 500 Hz, in steps of 2.
    expect(text.length).toBeGreaterThan(250);
    const [picture] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'PNG' }).click()]);
    expect(
        readFileSync(await picture.path())
            .subarray(1, 4)
            .toString(),
    ).toBe('PNG');
});

test('a log is downloaded, brought back in, and a bad one is refused in words', async ({ page }) => {
    await link(page, 'bittern');
    await page.goto('/craft/bittern/51');
    const rows = page.locator('#logs tbody tr[data-log]');
    const before = await rows.count();
    const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'CSV' }).first().click()]);
    const csv = readFileSync(await file.path(), 'utf8');
    expect(csv).toContain('time_s,throttle_pct');
    await page
        .locator('[data-import]')
        .setInputFiles({ name: 'reeds.csv.gz', mimeType: 'application/gzip', buffer: gzipSync(csv.replace('flight.card', 'flight.was')) });
    await expect(rows).toHaveCount(before + 1, { timeout: 40_000 });
    await expect(rows.first()).toContainText('reeds.csv.gz');
    await page
        .locator('[data-import]')
        .setInputFiles({ name: 'lunch.csv', mimeType: 'text/csv', buffer: Buffer.from('bread,cheese\n1,2\n') });
    await expect(page.getByRole('heading', { level: 1 })).toContainText('Which column is the time?');
    await page.getByRole('link', { name: 'Leave it' }).click();
    await expect(rows).toHaveCount(before + 1);
    await started(page);
    await page
        .locator('[data-import]')
        .setInputFiles({ name: 'picture.csv', mimeType: 'text/csv', buffer: Buffer.from([0, 1, 2, 3, 10, 4, 5, 6]) });
    await expect(page.locator('#import-problem')).toContainText('binary bytes');
});

test('a foreign log: what is unsure is asked once, and remembered', async ({ page }) => {
    await page.goto('/craft/curlew/51');
    const rows = page.locator('#logs tbody tr[data-log]');
    const before = await rows.count();
    const make = (seed) => {
        const lines = ['Clock us;Roll;Pitch;Roll cmd;Pitch cmd;frames lost'];
        for (let i = 0; i < 20000; i++)
            lines.push(
                [
                    i * 1000,
                    90 * Math.sin(i / 70 + seed) + (i % 7),
                    80 * Math.sin(i / 90),
                    90 * Math.sin(i / 70 + 0.1 + seed),
                    80 * Math.sin(i / 90 + 0.1),
                    0,
                ]
                    .map((v) => String(v).replace('.', ','))
                    .join(';'),
            );
        return Buffer.from(lines.join('\r\n'));
    };
    await started(page);
    await page.locator('[data-import]').setInputFiles({ name: 'theirs.csv', mimeType: 'text/csv', buffer: make(0) });
    await expect(page.getByRole('heading', { level: 1 })).toContainText('2 columns need your word');
    await page.getByLabel('Roll is').selectOption('rate_measured_roll_dps');
    await page.getByLabel('Pitch is').selectOption('rate_measured_pitch_dps');
    await expect(page.getByLabel('Unit of Clock us')).toHaveValue('µs');
    // What follows is drawn at each choice: in the wrong unit a rate does not lie along its setpoint.
    await expect(page.locator('#follows')).toContainText('× 0.9');
    await expect(page.locator('#follows')).not.toContainText('does not lie along it');
    await page.getByLabel('Unit of Roll', { exact: true }).selectOption('rad/s');
    await expect(page.locator('#follows')).toContainText('Roll does not lie along it');
    await page.getByLabel('Unit of Roll', { exact: true }).selectOption('deg/s');
    await expect(page.locator('#follows')).not.toContainText('does not lie along it');
    await started(page);
    await page.getByRole('button', { name: 'Bring it in like this' }).click();
    await expect(rows).toHaveCount(before + 1, { timeout: 40_000 });
    await started(page);
    await page.locator('[data-import]').setInputFiles({ name: 'theirs again.csv', mimeType: 'text/csv', buffer: make(1) });
    await expect(rows).toHaveCount(before + 2, { timeout: 40_000 });
    await expect(rows.first()).toContainText('1 column left out: frames lost');
    // Matched once more: it comes in anew, and what was is put away.
    await rows.first().getByRole('link', { name: 'findings' }).click();
    await expect(page.locator('#columns-of')).toContainText('frames lost');
    await page.getByRole('button', { name: 'Match its columns again' }).click();
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('What is each column?');
    await page.getByLabel('Pitch is').selectOption('rate_filtered_pitch_dps');
    await started(page);
    await page.getByRole('button', { name: 'Bring it in like this' }).click();
    await expect(page.getByRole('heading', { name: 'Put away', exact: true })).toBeVisible({ timeout: 40_000 });
    await expect(rows).toHaveCount(before + 2, { timeout: 40_000 });
    // Its front: what was found, what it can be used for; put away, and back.
    await rows.first().getByRole('link', { name: 'findings' }).click();
    await expect(page.getByRole('heading', { name: 'What it can be used for' })).toBeVisible();
    await expect(page.locator('.use')).toContainText('the outputs were not logged');
    await page.getByLabel('Tags').fill('borrowed');
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect(page.locator('#said')).toContainText('Kept');
    await page.getByRole('button', { name: 'Put this log away' }).click();
    await expect(rows).toHaveCount(before + 1);
    await started(page);
    await page.getByRole('button', { name: 'Bring back' }).first().click();
    await expect(rows).toHaveCount(before + 2);
    await expect(rows.first()).toContainText('borrowed');
});

test("Bittern's flight: the motor that lost thrust is named, and a clean flight has none", async ({ page }) => {
    await page.goto('/craft/bittern/51');
    const flights = await page.locator('#logs tbody tr[data-log]').evaluateAll((all) => all.map((r) => [r.dataset.log, r.innerText]));
    const [fallen] = flights.find(([, text]) => /Cruise/.test(text));
    const [clean] = flights.find(([, text]) => /Hover and climb/.test(text));
    await page.goto(`/craft/bittern/55?log=${fallen}`);
    await expect(page.getByRole('heading', { level: 1 })).toContainText(/At 24\.\d\d s the rear left motor lost thrust/);
    await expect(page.locator('.timeline li').first()).toContainText('the cause');
    await expect(page.locator('.checklist')).toContainText('the ESC');
    await page.goto(`/craft/bittern/55?log=${clean}`);
    await expect(page.getByRole('heading', { level: 1 })).toContainText('Nothing went wrong');
});

test('noise maps of two logs with their difference; against rotor speed; zoom by drag and keys; numbers out', async ({ page }) => {
    const first = await idOf(page, 'curlew', 'C-0001');
    await page.goto(`/craft/curlew/53?log=${await idOf(page, 'curlew', 'C-0002')}`);
    const map = page.locator('#noise-map');
    await expect(map).toBeVisible();
    await started(page);
    await page.getByLabel('against').selectOption('rpm_map');
    await readAt(page, '#noise-map', { x: 300, y: 200 }, /\d+ rpm\s+\d+ Hz/);
    // Drag a part of it, and read a narrower range of frequency; keys and double click bring it back.
    const hz = async (y) => {
        await map.hover({ position: { x: 301, y } });
        return Number((await page.locator('#reading').innerText()).match(/(\d+) Hz/)[1]);
    };
    // What is read follows as soon as the map is drawn anew.
    const shows = (check) => expect(async () => check((await hz(40)) - (await hz(300)))).toPass({ timeout: 15_000 });
    const box = await boxOf(map);
    const whole = (await hz(40)) - (await hz(300));
    // On a busy machine the map may be drawn anew under the first drag: then it is dragged again.
    await expect(async () => {
        await page.mouse.move(box.x + 200, box.y + 220);
        await page.mouse.down();
        await page.mouse.move(box.x + 400, box.y + 320, { steps: 6 });
        await page.mouse.up();
        await page.waitForTimeout(300);
        expect((await hz(40)) - (await hz(300))).toBeLessThan(whole / 2);
    }).toPass({ timeout: 15_000 });
    await map.dblclick({ position: { x: 300, y: 200 } });
    await shows((range) => expect(range).toBe(whole));
    await map.focus();
    await page.keyboard.press('+');
    await shows((range) => expect(range).toBeLessThan(whole * 0.6));
    await page.keyboard.press('Home');
    await page.keyboard.press('ArrowUp');
    await expect(page.locator('#reading')).toContainText('Hz');
    // A second log beside it: two maps, and one minus the other.
    await page.getByLabel('beside it').selectOption(first);
    await expect(page.locator('.beside-chip')).toHaveCount(1);
    await expect(page.locator('.says')).toContainText(/C-\d{4} minus C-\d{4}/);
    await expect(page.locator('.map-key')).toContainText('solid standing');
    await started(page);
    await readAt(page, '#noise-map', { x: 200, y: 120 }, /minus C-\d{4}/);
    const [numbers] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'CSV' }).click()]);
    const rows = readFileSync(await numbers.path(), 'utf8').split('\n');
    expect(rows[0]).toBe('log,throttle_pct,hz,db');
    expect(rows.some((r) => / minus /.test(r))).toBe(true);
    await page.getByRole('button', { name: /^Take C-\d{4} away$/ }).click();
    await expect(page.locator('.beside-chip')).toHaveCount(0);
});

test('two logs locked to each other, lined up, and rows chosen by name', async ({ page }) => {
    const [one, two] = [await idOf(page, 'curlew', 'C-0001'), await idOf(page, 'curlew', 'C-0002')];
    await page.goto(`/craft/curlew/52?log=${one}&beside[]=${two}`);
    const traces = page.locator('#traces');
    await expect(traces).toHaveAttribute('data-drawn-other', /\d/);
    await started(page);
    const box = await boxOf(traces);
    await page.mouse.move(box.x + 300, box.y + 60);
    await expect(page.locator('#values dd').first()).toHaveText('C-0001');
    await expect(page.locator('#values')).toContainText('throttle');
    await expect(page.locator('#there > g')).toHaveCount(2);
    // Shifted by hand, the other log's values change and the first one's stay.
    const value = (n) => page.locator('#values dd').nth(n).innerText();
    const [mine, theirs] = [await value(2), await value(3)];
    await page.getByLabel('Shift C-0002, seconds').fill('3.7');
    await page.keyboard.press('Tab');
    await page.mouse.move(box.x + 300, box.y + 61);
    await expect.poll(() => value(3)).not.toBe(theirs);
    expect(await value(2)).toBe(mine);
    await page.getByRole('button', { name: 'Line up by the sticks' }).click();
    await expect(page.locator('#said')).toContainText(/Lined up by|nothing to line them up by/);
    await page.getByText('Rows…').click();
    await page.getByRole('group', { name: 'Rows by name' }).getByLabel('setpoint, roll').check();
    await page.getByRole('group', { name: 'Rows by name' }).getByLabel('battery').check();
    await expect(page.getByLabel('Rows of traces')).toHaveValue('names');
    await page.getByText('Rows…').click();
    await page.mouse.move(box.x + 310, box.y + 160);
    await expect(page.locator('#values dt')).toHaveCount(3);
    // The choice is kept for the next log.
    await page.goto(`/craft/curlew/52?log=${two}`);
    await started(page);
    await page.getByLabel('Rows of traces').selectOption('names');
    await page.mouse.move(box.x + 310, box.y + 160);
    await expect(page.locator('#values dt')).toHaveCount(2);
});

test('the step window by window: seen, stepped through, excluded and included again', async ({ page }) => {
    await page.goto(`/craft/curlew/54?log=${await idOf(page, 'curlew', 'C-0001')}`);
    await expect(page.locator('#response-plot canvas')).toBeVisible();
    await started(page);
    const used = () => page.locator('[data-rank="roll"] td').nth(8).innerText();
    const before = await used();
    await page.getByRole('radio', { name: 'window by window' }).check();
    const frames = page.locator('#frames');
    await expect(frames).toHaveAttribute('data-drawn', /^roll \d+$/);
    await expect(page.locator('#frame-curve canvas')).toBeVisible();
    const at = await page.locator('#frame-at').innerText();
    await frames.focus();
    await page.keyboard.press('ArrowRight');
    await expect(page.locator('#frame-at')).not.toHaveText(at);
    await page.keyboard.press('ArrowRight');
    await expect(page.locator('#frame-says')).toContainText(/up to \d+ deg\/s, \d+ as its edges count · \d+ % of its curve measured here/);
    await page.locator('#frame-strip').click({ position: { x: 400, y: 40 } });
    await expect(page.locator('#frame-at')).toContainText(/1\d\.\d\d to/);
    await page.keyboard.press('x');
    await expect(page.locator('#frame-says')).toContainText('excluded by hand');
    await started(page);
    await page.getByRole('radio', { name: 'the whole flight' }).check();
    await expect(page.locator('.says')).toContainText('1 window was excluded by hand');
    expect(await used()).not.toBe(before);
    await page.getByRole('radio', { name: 'window by window' }).check();
    await page.getByRole('button', { name: 'Include it again' }).click();
    await expect(page.locator('.says')).not.toContainText('excluded by hand');
    await started(page);
    await page.getByRole('radio', { name: 'the whole flight' }).check();
    expect(await used()).toBe(before);
    // Limits of one's own for small and medium moves; contradicting ones are refused in words.
    await page.getByLabel('Small up to').fill('300');
    await page.getByLabel('medium up to').fill('200');
    await page.getByRole('button', { name: 'Apply' }).click();
    await expect(page.locator('#size-limits .problem')).toContainText('the second above the first');
    await page.getByLabel('medium up to').fill('350');
    await page.getByRole('button', { name: 'Apply' }).click();
    await expect(page.locator('#sizes')).toContainText('≤350');
});

test('a log counted the other way round has its sign reversed on its front, and parts are noted', async ({ page }) => {
    await page.goto('/craft/curlew/51');
    const rows = page.locator('#logs tbody tr[data-log]');
    const before = await rows.count();
    const lines = ['time_s,setpoint_roll_dps,rate_measured_roll_dps'];
    const hands = (i) => 150 * Math.sin(i / 130) + 60 * Math.sin(i / 41);
    for (let i = 0; i < 16000; i++) lines.push([i / 1000, hands(i), -hands(i - 12)].map((v) => v.toFixed(3)).join(','));
    await started(page);
    await page.locator('[data-import]').setInputFiles({ name: 'turned.csv', mimeType: 'text/csv', buffer: Buffer.from(lines.join('\n')) });
    await expect(rows).toHaveCount(before + 1, { timeout: 40_000 });
    await expect(page.locator('.job')).toHaveCount(0, { timeout: 40_000 });
    await rows.first().getByRole('link', { name: 'findings' }).click();
    await expect(page.getByRole('heading', { name: 'The sign of roll is reversed' })).toBeVisible();
    await started(page);
    await page.getByRole('button', { name: 'Reverse the sign of roll' }).click();
    await expect(page.getByRole('heading', { name: 'Sign reversed here' })).toBeVisible();
    await expect(page.getByRole('heading', { name: 'The sign of roll is reversed' })).toHaveCount(0);
    await started(page);
    await page.locator('#parts select[name="part"]').selectOption('motor');
    await page.locator('#parts select[name="place"]').selectOption('rear left');
    await page.getByLabel('With', { exact: true }).fill('new bearings');
    await page.getByRole('button', { name: 'Note it' }).click();
    await expect(page.locator('#parts')).toContainText('motor, rear left: new bearings');
    await page.goto('/craft/curlew/51');
    await expect(rows.first()).toContainText('new: motor rear left');
});

test('a file that is being taken in when the page is loaded anew is told as lost; on another sheet it goes on', async ({ page }) => {
    const rows = Array.from(
        { length: 300_000 },
        (_, i) => `${i / 1000},${(90 * Math.sin(i / 40)).toFixed(4)},${(80 * Math.sin(i / 41)).toFixed(4)}`,
    );
    const buffer = Buffer.from(`time_s,setpoint_roll_dps,rate_measured_roll_dps\n${rows.join('\n')}\n`);
    // So slow that there is a middle.
    await page.route('**/uploads/**', async (route) => {
        await new Promise((done) => setTimeout(done, 1500));
        await route.continue().catch(() => {});
    });
    page.on('dialog', (dialog) => dialog.accept());
    await page.goto('/craft/dunlin/51');
    await started(page);
    await page.locator('[data-import]').setInputFiles({ name: 'cut off.csv', mimeType: 'text/csv', buffer });
    await expect(page.locator('#said')).toContainText('Taking in cut off.csv');
    await page.reload();
    await expect(page.locator('#import-problem')).toContainText('cut off.csv was not taken in: the page was loaded anew meanwhile');
    await page.reload();
    await expect(page.locator('#import-problem')).toBeHidden();
    await started(page);
    await page.locator('[data-import]').setInputFiles({ name: 'goes on.csv', mimeType: 'text/csv', buffer });
    await expect(page.locator('#said')).toContainText('Taking in goes on.csv');
    await page.locator('.tabs a', { hasText: 'Noise' }).click();
    await expect(page).toHaveURL(/\/53$/);
    await page.locator('.tabs a', { hasText: 'Logs' }).click();
    await expect(page.locator('#logs')).toContainText('goes on', { timeout: 90_000 });
});

test('a unit that only its name says is asked, with what the flight would have been in it', async ({ page }) => {
    await page.goto('/craft/curlew/51');
    await started(page);
    const lines = ['time_s,gyro roll (deg/s),gyro pitch (deg/s),motor 1,motor 2,motor 3,motor 4'];
    for (let i = 0; i < 6000; i++)
        lines.push(`${(i / 1000).toFixed(3)},${(240 * Math.sin(i / 140)).toFixed(2)},${(90 * Math.sin(i / 170)).toFixed(2)},30,31,32,33`);
    await page.locator('[data-import]').setInputFiles({ name: 'named.csv', mimeType: 'text/csv', buffer: Buffer.from(lines.join('\n')) });
    await expect(page.getByRole('heading', { level: 1 })).toContainText('2 columns need your word');
    await expect(page.locator('aside, .says').first()).toContainText('in deg/s: only its name says the unit, and others fit, too');
    await expect(page.locator('[data-fastest="roll"]')).toHaveText('240 deg/s');
    // In tenths it would have been a calm flight: what follows is shown at once.
    await page.getByLabel('Unit of gyro roll (deg/s)').selectOption('0.1 deg/s');
    await expect(page.locator('[data-fastest="roll"]')).toHaveText('24 deg/s');
    await expect(page.locator('[data-fastest="pitch"]')).toHaveText('90 deg/s');
    // The other theme draws the page anew: what was chosen stands, and so does what follows from it.
    await page.locator('#theme').click();
    await expect(page.locator('#theme')).toHaveAttribute('value', 'light');
    await expect(page.getByLabel('Unit of gyro roll (deg/s)')).toHaveValue('0.1 deg/s');
    await expect(page.locator('[data-fastest="roll"]')).toHaveText('24 deg/s');
    await page.locator('#theme').click();
    await expect(page.locator('#theme')).toHaveAttribute('value', 'dark');
    await page.getByRole('link', { name: 'Leave it' }).click();
    await expect(page).toHaveURL(/curlew\/51$/);
});
