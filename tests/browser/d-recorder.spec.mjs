// Sheet 51, the recorder of a board, and sheet 53 for one that has none.
import { execFileSync } from 'node:child_process';
import { readdirSync, readlinkSync } from 'node:fs';
import { connect } from 'node:net';
import { fileURLToPath } from 'node:url';
import { expect, link, put, ready, started, test, thing } from './hands.mjs';

test('51: a flight without its cable lies on the recorder; it is fetched, and erased', async ({ page }) => {
    test.setTimeout(120_000);
    await link(page, 'bittern');
    await page.goto('/craft/bittern/51');
    const button = page.getByRole('button', { name: 'Carry it out and make it ready' });
    if (await button.count()) await button.click();
    await expect(page.getByRole('heading', { name: 'Ready to fly', exact: true })).toBeVisible();
    await expect(page.locator('#recorder')).toContainText('all in the book');
    const rows = page.locator('#logs tbody tr[data-log]');
    const before = await rows.count();
    await put(page, 'cable', false);
    await expect(page.locator('#recorder')).toContainText('While the craft is linked');
    await started(page);
    await page.locator('[data-card="cruise"]').click();
    await expect(page.locator('#jobs-ended')).toContainText('It lies on the recorder', { timeout: 60_000 });
    await expect(rows).toHaveCount(before);
    await link(page, 'bittern');
    await page.goto('/craft/bittern/51');
    await expect(page.locator('#recorder')).toContainText('1 of them new');
    // What was not fetched is not erased by mistake.
    await started(page);
    await page.locator('#erase').click();
    await expect(page.locator('#recorder-problem')).toContainText('not in the book');
    await page.locator('#fetch').click();
    await expect(rows).toHaveCount(before + 1, { timeout: 60_000 });
    await expect(rows.first()).toContainText('Cruise');
    await expect(page.locator('#recorder')).toContainText('all in the book');
    // It is still being looked at: until then nothing is erased.
    await expect(page.locator('.job .progress')).toHaveCount(0, { timeout: 60_000 });
    await started(page);
    await page.locator('#erase').click();
    await expect(page.locator('#recorder')).toContainText('0 recordings', { timeout: 60_000 });
    await expect(rows).toHaveCount(before + 1);
});

test('work under way keeps no connection of the server open', async ({ page, baseURL }) => {
    await link(page, 'bittern');
    await ready(page, 'bittern');
    const { hostname, port } = new URL(baseURL);
    // As browsers do: connections that ask for nothing yet, held by the workers that begin the work.
    const asked = [];
    for (let i = 0; i < 24; i++) {
        const socket = connect({ host: hostname, port: Number(port) });
        await new Promise((r) => socket.once('connect', r));
        asked.push(socket);
    }
    await started(page);
    await page.locator('[data-card="cruise"]').click();
    await expect(page.locator('.job .progress')).toBeVisible();
    const root = fileURLToPath(new URL('../..', import.meta.url));
    const works = execFileSync('pgrep', ['-f', `${root}bin/console app:job`], { encoding: 'utf8' })
        .trim()
        .split('\n');
    // What it has closed since it was listed, it does not hold.
    const linkOf = (path) => {
        try {
            return readlinkSync(path);
        } catch (error) {
            if (error.code === 'ENOENT') return '';
            throw error;
        }
    };
    const held = works.flatMap((id) => readdirSync(`/proc/${id}/fd`).map((fd) => linkOf(`/proc/${id}/fd/${fd}`)));
    expect(held.filter((to) => to.startsWith('socket:'))).toEqual([]);
    for (const socket of asked) socket.destroy();
    await expect(page.locator('.job .progress')).toHaveCount(0, { timeout: 90_000 });
});

test('several logs are brought in one after the other, without waiting for each', async ({ page }) => {
    await page.goto('/craft/curlew/51');
    const rows = page.locator('#logs tbody tr[data-log]');
    const before = await rows.count();
    const make = (seed) => {
        const lines = ['time_s,setpoint_roll_dps,rate_filtered_roll_dps'];
        for (let i = 0; i < 15000; i++)
            lines.push(`${i / 1000},${(200 * Math.sin(i / 90 + seed)).toFixed(2)},${(195 * Math.sin((i - 12) / 90 + seed)).toFixed(2)}`);
        return Buffer.from(lines.join('\n'));
    };
    await started(page);
    const inputs = page.locator('[data-import]');
    for (const seed of [1, 2, 3]) {
        const answered = page.waitForResponse((r) => r.url().includes('/logs/import'));
        await inputs.setInputFiles({ name: `pass ${seed}.csv`, mimeType: 'text/csv', buffer: make(seed) });
        expect((await answered).status()).toBe(200);
    }
    await expect(rows).toHaveCount(before + 3, { timeout: 60_000 });
    await expect(rows.first()).toContainText('pass 3.csv');
});

test('53: Dunlin has no recorder; on the desk its frame is heard ringing', async ({ page }) => {
    test.setTimeout(180_000);
    await link(page, 'dunlin');
    await page.goto('/craft/dunlin/51');
    await page.getByRole('link', { name: '53 Desk noise' }).click();
    await expect(page.getByRole('heading', { level: 1 })).toContainText('Not measured yet');

    // Asked before the props are declared off, it says what is still to be done, and turns nothing.
    if ((await thing(page, 'pack').getAttribute('aria-pressed')) === 'true') await put(page, 'pack', false);
    await put(page, 'props', false);
    await expect(page.locator('#desk-measure')).toContainText('Connect the');
    await put(page, 'pack', true);
    await started(page);
    await page.locator('#measure-desk').focus();
    await page.keyboard.press('Enter');
    await expect(page.locator('#desk-problem')).toContainText('props');
    await page.locator('#declare-props').click();
    await expect(page.locator('#declare-props')).toHaveCount(0);
    await started(page);
    await page.locator('#measure-desk').click();
    await expect(page.locator('#cascade')).toBeVisible({ timeout: 120_000 });
    await expect(page.getByRole('heading', { level: 1 })).toContainText(/rings at 2\d\d Hz about pitch/);
    await expect(page.locator('#desk-cannot')).toContainText('props and air');
    await page.getByRole('link', { name: 'yaw', exact: true }).click();
    await expect(page.locator('#cascade')).toHaveAttribute('aria-label', /yaw/);
    for (const theme of ['light', 'dark']) {
        await page.evaluate((t) => (document.documentElement.dataset.theme = t), theme);
        await page.setViewportSize({ width: 900, height: 800 });
        const wide = await page.evaluate(() => document.documentElement.scrollWidth);
        expect(wide).toBeLessThanOrEqual(900);
    }
});
