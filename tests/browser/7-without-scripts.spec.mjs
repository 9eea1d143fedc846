// Everything that is not a drawing works before scripts have started, and without them.
import { expect, started, test } from './hands.mjs';

const h1 = (page) => page.getByRole('heading', { level: 1 });

test.describe('without scripts', () => {
    test.use({ javaScriptEnabled: false });

    const press = (page, name) => page.getByRole('button', { name, exact: true }).click();
    const staged = (page, words) => expect(page.locator('.tray-tab')).toHaveText(words);
    const commit = async (page, why) => {
        await page.locator('.tray-tab').click();
        await page.getByLabel('Why').fill(why);
        await page.getByRole('button', { name: /^Commit/ }).click();
        await expect(page.locator('.tray-tab')).toBeHidden();
    };
    // The page does not come back by itself: it is asked for again until it says so.
    const until = async (page, says) => {
        await expect(async () => {
            await page.reload();
            await says();
        }).toPass({ timeout: 60_000, intervals: [500] });
    };

    test('11 to 16: linked, mounted, wired, spun, written and set by forms alone', async ({ page }) => {
        test.setTimeout(180_000);
        await page.goto('/craft/bittern/11');
        // Another test may have left it plugged in, and powered.
        for (const thing of ['cable', 'pack']) {
            const there = page.locator(`#thing-${thing}`);
            if ((await there.getAttribute('aria-pressed')) === 'true') await there.click();
            await expect(there).toHaveAttribute('aria-pressed', 'false');
        }
        await press(page, 'Plug the cable');
        await press(page, 'Link');
        await expect(page.locator('#said')).toContainText('Linked.');
        await press(page, 'Connect the pack');
        await press(page, 'Read them');
        await expect(page.locator('.esc-list')).toBeVisible();

        await page.goto('/craft/bittern/14');
        await press(page, 'It is level');
        await page.getByLabel('Tilt of the craft').selectOption('nose_up');
        await press(page, 'tilt');
        await press(page, 'The nose is up');
        await expect(page.getByRole('heading', { name: 'What follows' })).toBeVisible();
        await page.getByLabel('Tilt of the craft').selectOption('level');
        await press(page, 'tilt');
        // It takes a moment to lie still.
        await expect(async () => {
            await page.goto('/craft/bittern/14');
            await press(page, 'Use this as level');
            await expect(page.locator('#said')).toContainText('off level', { timeout: 500 });
        }).toPass();

        await page.goto('/craft/bittern/13');
        await page.getByText('Wires by name').click();
        await page.getByRole('button', { name: 'Cut', exact: true }).first().click();
        await expect(h1(page)).not.toContainText('agree with it');

        await page.goto('/craft/bittern/15');
        await page.locator('#thing-props').click();
        await press(page, 'The props are off');
        await page.getByRole('button', { name: /Hold to spin output 1/ }).click();
        await page.getByLabel('Which motor turned?').selectOption({ index: 0 });
        await press(page, '↻ clockwise');
        await expect(page.getByText('1 of 6 shown')).toBeVisible();
        await press(page, 'Clear, and show all again');
        await expect(page.getByText('0 of 6 shown')).toBeVisible();

        await page.goto('/craft/bittern/16');
        await page.getByLabel('Commutation advance, all ESCs, deg').fill('17');
        await page.locator('form:has(#all-advance_deg) button').click();
        await staged(page, /\d+ staged/);
        await page.locator('.tray-tab').click();
        await press(page, 'Discard all');
        await expect(page.locator('.tray-tab')).toBeHidden();

        await page.goto('/craft/bittern/12');
        await page
            .getByRole('link', { name: /^Choose/ })
            .first()
            .click();
        await expect(page.getByRole('heading', { name: 'Write it' })).toBeVisible();
        await page.locator('#write-button').click();
        await until(page, () => expect(page.getByRole('heading', { name: 'Written and verified' })).toBeVisible({ timeout: 100 }));
        await press(page, 'Seen');
        await page.goto('/craft/bittern/12');
        await page.setInputFiles('[data-hex]', { name: 'bad.hex', mimeType: 'text/plain', buffer: Buffer.from(':00\n') });
        await press(page, 'Look at it');
        await expect(h1(page)).toContainText('Line 1');
        await page.getByRole('link', { name: 'Back to the sheet' }).click();
        await expect(page).toHaveURL(/bittern\/12/);
    });

    test('51 to 55: flown, read, noted, kept and put away by forms alone', async ({ page }) => {
        test.setTimeout(180_000);
        await page.goto('/craft/bittern/51');
        const logs = page.locator('#logs tbody tr[data-log]');
        const before = await logs.count();
        await press(page, 'Carry it out and make it ready');
        await page.getByRole('button', { name: /Hover and climb/ }).click();
        await expect(page.locator('.job .progress')).toBeVisible();
        await until(page, () => expect(logs).toHaveCount(before + 1, { timeout: 100 }));
        await logs.first().getByRole('link', { name: 'findings' }).click();
        await page.getByLabel('Tags').fill('calm');
        await press(page, 'Keep');
        await expect(page.locator('#said')).toContainText('Kept.');
        await page.getByLabel('With', { exact: true }).fill('the same, new');
        await press(page, 'Note it');
        await expect(page.locator('#parts')).toContainText('prop: the same, new');
        await page.goto('/craft/bittern/52');
        await page.locator('#passage [name="name"]').fill('the climb');
        await page.locator('#passage [name="from"]').fill('5');
        await page.locator('#passage [name="to"]').fill('15');
        await press(page, 'Keep what is shown');
        await expect(page.locator('.says')).toContainText('5.00 to 15.00 s');
        await page.getByRole('button', { name: 'Drop the climb' }).click();
        await expect(page.locator('.says')).not.toContainText('the climb');
        for (const [sheet, says] of [
            ['53', /deg\/s RMS/],
            ['54', /overshoots|clean|tell/i],
            ['55', /went wrong|lost thrust/],
        ]) {
            await page.goto(`/craft/bittern/${sheet}`);
            await expect(h1(page)).toContainText(says);
        }
        await page.getByRole('combobox', { name: 'Log', exact: true }).selectOption({ index: 1 });
        await press(page, 'Show');
        await expect(page).toHaveURL(/log=\d+/);
        await page.goto('/craft/bittern/51');
        await logs.first().getByRole('link', { name: 'findings' }).click();
        await press(page, 'Put this log away');
        await expect(logs).toHaveCount(before);
        await press(page, 'Bring back');
        await expect(logs).toHaveCount(before + 1);
    });

    test('21 to 23: sticks shown, feel and switch map set by forms alone', async ({ page }) => {
        await page.context().addCookies([{ name: 'tiller', value: 'open', url: 'http://127.0.0.1:8799' }]);
        await page.goto('/craft/curlew/11');
        if ((await page.locator('#thing-cable').getAttribute('aria-pressed')) === 'false') await page.locator('#thing-cable').click();
        await page.waitForTimeout(800);
        await page.reload();
        if (await page.getByRole('button', { name: 'Link', exact: true }).count()) await press(page, 'Link');
        if ((await page.locator('#thing-transmitter').getAttribute('aria-pressed')) === 'false')
            await page.locator('#thing-transmitter').click();
        await page.goto('/craft/curlew/23');
        await page.locator('#cell-record-8-2').click();
        await staged(page, '1 staged');
        await page.locator('#choose-test_feel').click();
        await expect(page.locator('#doing')).toContainText('Flick the lever');
        const address = page.url();
        await page.getByRole('button', { name: 'Lever D high' }).click();
        await page.waitForTimeout(300);
        await page.goto(address);
        await expect(page.locator('#doing')).toContainText('on channel 8, high?');
        await press(page, 'Put it there');
        await staged(page, '2 staged');
        await page.locator('.tray-tab').click();
        await press(page, 'Discard all');
        await page.getByRole('button', { name: 'Lever D low' }).click();
        const move = async (to) => {
            await page.goto('/craft/curlew/21');
            await page.locator('.tiller-menu').evaluate((menu) => (menu.open = true));
            await page.locator('.tiller-table input[name=to][type=text]').fill(to);
            await press(page, 'Move them');
            await page.waitForTimeout(350);
        };
        await page.goto('/craft/curlew/21');
        await expect(h1(page)).toContainText('The sticks say what you mean');
        await press(page, 'Another radio: forget what was shown');
        await press(page, 'Show which stick is which');
        for (const [there, back] of [
            ['roll=1', 'roll=0'],
            ['pitch=1', 'pitch=0'],
            ['throttle=1', 'throttle=1'],
            ['yaw=1', 'yaw=0'],
        ]) {
            await move(there);
            await move(back);
            await page.goto('/craft/curlew/21');
        }
        await expect(h1(page)).toContainText('How far they really reach is not shown yet');
        await press(page, 'Capture the spans');
        for (const end of ['1', '-1', '0', '0']) await move(['roll', 'pitch', 'yaw'].map((s) => `${s}=${end}`).join(','));
        await move('throttle=-1');
        await page.goto('/craft/curlew/21');
        await press(page, 'That is all');
        await expect(h1(page)).toContainText('The sticks say what you mean');
        await page.goto('/craft/curlew/22');
        await page.locator('#feel-points').evaluate((d) => (d.open = true));
        await page.locator('[data-setting="feel.roll.full_dps"]').fill('640');
        await page.locator('#feel-points').getByRole('button', { name: 'Stage these' }).click();
        await staged(page, '1 staged');
        await page.locator('.tray-tab').click();
        await press(page, 'Discard all');
    });

    test('61, 62, 71 to 73: staged, committed and brought back by forms alone', async ({ page }) => {
        await page.goto('/craft/bittern/61');
        await page.locator('[data-setting="gain.roll.p"]').fill('31');
        await press(page, 'Stage these');
        await staged(page, '1 staged');
        await page.goto('/craft/bittern/62');
        await page.locator('[data-setting="d_path.stage.1.cutoff_hz"]').fill('90');
        await press(page, 'Stage these');
        await staged(page, '2 staged');
        await commit(page, 'by hand');
        await page.goto('/craft/bittern/73');
        await expect(page.locator('.changes')).toContainText('by hand');
        await page
            .getByRole('button', { name: /Stage the way back/ })
            .first()
            .click();
        await staged(page, '2 staged');
        await page.locator('.tray-tab').click();
        await page.getByRole('button', { name: /^Take/ }).first().click();
        await staged(page, '1 staged');
        await commit(page, 'and back');
        await page.goto('/craft/bittern/72');
        await page.getByLabel('Name', { exact: true }).fill('as it is');
        await press(page, 'Take a snapshot');
        await expect(page.locator('#said')).toContainText('“as it is” was taken');
        await page.goto('/craft/bittern/71');
        await page.getByLabel('Settings as YAML').fill('gain.yaw.p: 900');
        await press(page, 'Check and stage');
        await expect(h1(page)).toContainText('lies outside');
        await page.goBack();
        await expect(page.getByLabel('Settings as YAML')).toHaveValue('gain.yaw.p: 900');
        await page.locator('#find').click();
        await page.getByRole('searchbox').fill('cutoff');
        await press(page, 'Find');
        await page.getByRole('link', { name: 'd_path.stage.1.cutoff_hz' }).click();
        await expect(page).toHaveURL(/62\?setting=/);
        await page.locator('#theme').click();
        await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
    });
});

test('a click before the scripts have come is not lost', async ({ page }) => {
    await page.route('**/build/app-*.js', async (route) => {
        await new Promise((r) => setTimeout(r, 1500));
        await route.continue();
    });
    await page.goto('/craft/bittern/61', { waitUntil: 'commit' });
    await page.locator('#thing-outdoors').click({ noWaitAfter: true });
    await expect(page.locator('#thing-outdoors')).toHaveAttribute('aria-pressed', 'false');
    // What is chosen before they come is sent when they do.
    await page.goto('/craft/bittern/61?axis=yaw', { waitUntil: 'commit' });
    await page.locator('[data-setting="gain.yaw.p"]').fill('39');
    await expect(page.locator('.tray-tab')).toHaveText('1 staged');
});

test('typing, focus, scroll and an open tray survive what another page does', async ({ page, context }) => {
    await page.goto('/craft/bittern/61');
    await started(page);
    await expect(page.locator('.tray-tab')).toHaveText('1 staged');
    await page.keyboard.press('t');
    await page.getByLabel('Why').pressSequentially('half a rea');
    const other = await context.newPage();
    await other.goto('/craft/bittern/71?all=1');
    await other.getByLabel('Settings as YAML').fill('gain.pitch.i: 71');
    await other.getByRole('button', { name: 'Check and stage' }).click();
    await expect(page.locator('.tray-tab')).toHaveText('2 staged');
    await page.keyboard.type('son');
    await expect(page.getByLabel('Why')).toHaveValue('half a reason');
    expect(await page.locator('#tray').evaluate((tray) => tray.open)).toBe(true);
    await page.goto('/craft/bittern/71?all=1');
    await started(page);
    const table = page.locator('.scroll').first();
    await table.evaluate((el) => (el.scrollTop = 400));
    await other.goto('/craft/bittern/61');
    await started(other);
    await other.keyboard.press('t');
    await other.getByRole('button', { name: 'Discard all' }).click();
    await expect(page.locator('.tray-tab')).toBeHidden();
    expect(await table.evaluate((el) => el.scrollTop)).toBe(400);
    await other.close();
});

test('buttons pressed one after the other all arrive, however slow the server is', async ({ page }) => {
    await page.goto('/craft/bittern/61');
    await started(page);
    const state = (name) => page.locator(`#thing-${name}`).getAttribute('aria-pressed');
    const before = { props: await state('props'), transmitter: await state('transmitter'), outdoors: await state('outdoors') };
    await page.route('**/bench', async (route) => {
        await new Promise((r) => setTimeout(r, 600));
        await route.continue();
    });
    for (const name of Object.keys(before)) await page.locator(`#thing-${name}`).click();
    for (const [name, was] of Object.entries(before))
        await expect(page.locator(`#thing-${name}`)).toHaveAttribute('aria-pressed', was === 'true' ? 'false' : 'true');
    await page.unroute('**/bench');
    for (const name of Object.keys(before)) {
        await page.locator(`#thing-${name}`).click();
        await expect(page.locator(`#thing-${name}`)).toHaveAttribute('aria-pressed', before[name]);
        await started(page);
    }
});

test('a switch that is pressed twice before the page has shown the first press goes back', async ({ page }) => {
    await page.goto('/craft/bittern/61');
    await started(page);
    const cable = page.locator('#thing-cable');
    const was = await cable.getAttribute('aria-pressed');
    const twice = was === 'true' ? ['0', '1'] : ['1', '0'];
    const put = [];
    page.on('response', (answer) => {
        const r = answer.request();
        if (r.url().endsWith('/bench')) put.push(/name="to"\s+(.)|to=(.)/.exec(r.postData()).slice(1).join(''));
    });
    // While the press is on its way.
    await page.route('**/bench', async (route) => {
        await new Promise((r) => setTimeout(r, 700));
        await route.continue();
    });
    await cable.click();
    await cable.click({ timeout: 500 });
    await expect.poll(() => put).toEqual(twice);
    await expect(cable).toHaveAttribute('aria-pressed', was);
    // While the page that has come is not drawn yet.
    await page.goto('/craft/bittern/61');
    await started(page);
    await page.evaluate(() =>
        addEventListener(
            'turbo:before-render',
            (e) => {
                e.preventDefault();
                setTimeout(() => e.detail.resume(), 700);
            },
            { once: true },
        ),
    );
    put.length = 0;
    const came = page.waitForResponse('**/craft/bittern/61');
    await cable.click();
    await came;
    await page.waitForTimeout(200);
    await cable.click();
    await expect.poll(() => put).toEqual(twice);
    await expect(cable).toHaveAttribute('aria-pressed', was);
});
