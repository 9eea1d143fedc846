import { execFileSync, spawn } from 'node:child_process';
import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { commit, expect, link, put, started, test } from './hands.mjs';

const root = fileURLToPath(new URL('../..', import.meta.url));

test('a damaged file from disk is refused with its line', async ({ page }) => {
    await link(page, 'bittern');
    await page.goto('/craft/bittern/12');
    await page.locator('[data-hex]').setInputFiles({
        name: 'torn.hex',
        mimeType: 'text/plain',
        buffer: Buffer.from(':10010000214601360121470136007EFE09D2190140\n:100110002146017E17C20001FF5F16002148011929\n:00000001FF\n'),
    });
    await expect(page.locator('#hex-problem')).toContainText('torn.hex: Line 2: checksum 0x29 is wrong; the bytes call for 0x28');
});

// Its own server and data, so that it can be killed.
test('cable pulled, process killed, page reloaded, server restarted: the state is true and the way on is offered', async ({ page }) => {
    test.setTimeout(240_000);
    const data = `${root}var/recovery-data`;
    rmSync(data, { recursive: true, force: true });
    const env = { ...process.env, ORTHOLEX_DATA: data, ORTHOLEX_PACE: '1' };
    execFileSync('php', ['bin/console', 'app:set-up', '--no-flights'], { cwd: root, env: { ...env, APP_ENV: 'prod' } });
    const start = async () => {
        const server = spawn('bin/start', ['--port', '8801'], { cwd: root, env, detached: true, stdio: 'ignore' });
        for (let i = 0; i < 120; i++) {
            if (
                await fetch('http://127.0.0.1:8801/').then(
                    (r) => r.ok,
                    () => false,
                )
            )
                return server;
            await new Promise((r) => setTimeout(r, 250));
        }
        throw new Error('the server did not start');
    };
    const stop = (server) => {
        try {
            process.kill(-server.pid, 'SIGKILL');
        } catch {
            /* gone already */
        }
    };
    const url = 'http://127.0.0.1:8801';
    let server = await start();
    try {
        await page.goto(`${url}/craft/curlew/11`);
        await put(page, 'cable', true);
        await page.getByRole('button', { name: 'Link', exact: true }).click();
        await expect(page.locator('#link-state')).toHaveAttribute('data-linked', '1');
        await page.goto(`${url}/craft/curlew/61?axis=yaw`);
        await page.locator('[data-setting="gain.yaw.i"]').fill('95');
        await page.keyboard.press('Tab');
        await expect(page.locator('.tray-tab')).toHaveText('1 staged');

        // 1. The cable goes in the middle of the write.
        await page.goto(`${url}/craft/curlew/12?image=loam-26.06-quern-f7`);
        await page.locator('#write-button').click();
        await expect(page.locator('[data-job-doing]')).toContainText(/writing page [3-9]\d/, { timeout: 20_000 });
        await put(page, 'cable', false);
        await expect(page.getByText('Write Loam 26.06: failed')).toBeVisible();
        await expect(page.getByRole('heading', { level: 1 })).toContainText('waits in its bootloader');
        await page.reload();
        await expect(page.getByText('Write Loam 26.06: failed')).toBeVisible();
        await expect(page.getByRole('button', { name: 'Go on from there' })).toBeDisabled();

        // 2. Linked again, gone on, and the process is killed.
        await page.goto(`${url}/craft/curlew/11`);
        await put(page, 'cable', true);
        await page.getByRole('button', { name: 'Link', exact: true }).click();
        await expect(page.getByRole('heading', { level: 1 })).toContainText('only its bootloader runs');
        await page.goto(`${url}/craft/curlew/12`);
        await page.getByRole('button', { name: 'Go on from there' }).click();
        await expect(page.locator('[data-job-doing]')).toContainText(/writing page \d+/, { timeout: 20_000 });
        execFileSync('pkill', ['-9', '-f', `${root.slice(0, -1)}/bin/console app:job`]);
        await expect(page.getByText('Write Loam 26.06: interrupted')).toBeVisible({ timeout: 20_000 });

        // 3. The server goes and comes back.
        stop(server);
        await expect
            .poll(() =>
                fetch(url).then(
                    () => true,
                    () => false,
                ),
            )
            .toBe(false);
        server = await start();
        await page.goto(`${url}/`);
        await expect(page.getByText('The board waits in its bootloader, without whole firmware.')).toBeVisible();
        await page.goto(`${url}/craft/curlew/12`);
        await expect(page.getByText('Write Loam 26.06: interrupted')).toBeVisible();
        await page.getByRole('button', { name: 'Go on from there' }).click();
        await expect(page.getByText('Written and verified')).toBeVisible({ timeout: 60_000 });
        await expect(page.locator('.column')).toContainText(/\d+ of them written before the interruption/);
        await expect(page.locator('#link-state')).toContainText('26.06');
        await expect(page.locator('.tray-tab')).toHaveText('1 staged');
        await page.goto(`${url}/craft/curlew/61?axis=roll`);
        await expect(page.locator('[data-setting="gain.roll.p"]')).toHaveValue('33');
        const { jobs } = await page.evaluate(() => fetch('/craft/curlew/live.json').then((r) => r.json()));
        expect(
            jobs.filter((j) => j.state !== 'done'),
            'what failed on the way is answered by the write that ended well',
        ).toEqual([]);
        await page.goto(`${url}/craft/curlew/72`);
        await expect(page.locator('.snapshot-list')).toContainText('Before flashing 26.06');

        // 4. The cable goes in the middle of a Commit, while the board restarts.
        const post = (path, data) => page.request.post(url + path, { data, headers: { 'X-Ortholex': '1' } });
        await post('/craft/curlew/stage', { values: { 'gain.roll.p': '31', 'telemetry.enabled': '1', 'uart.3.role': 'telemetry' } });
        await page.goto(`${url}/craft/curlew/73`);
        await expect(page.locator('.tray-tab')).toHaveText('4 staged');
        await started(page);
        await page.locator('.tray-tab').click();
        await page.getByLabel('Why').fill('pulled on purpose');
        const sent = page.waitForRequest(/\/commit$/);
        await page.keyboard.press('Control+Enter');
        await sent;
        // The first of its two rounds is kept, and the board restarts.
        const kept = () => JSON.parse(readFileSync(`${data}/bench/curlew/world.json`, 'utf8')).kept['gain.roll.p'];
        await expect.poll(kept, { intervals: [10] }).toBe(31);
        await post('/craft/curlew/bench', { thing: 'cable', to: '0' });
        await expect(page.locator('.tray-panel .problem')).toContainText(/cable|link/i);
        // The tray lies over the column: it is put away.
        await page.keyboard.press('Escape');
        await page.goto(`${url}/craft/curlew/54`);
        await expect(page.locator('#interrupted')).toContainText('Commit was interrupted');
        // Looked at first, it would be the cable and the link, here; what follows is looked at on 73.
        await started(page);
        await page.locator('#interrupted').getByRole('button', { name: 'Plug the cable' }).click();
        await page.locator('#interrupted').getByRole('button', { name: 'Link it', exact: true }).click();
        await expect(page.locator('#link-state')).toHaveAttribute('data-linked', '1');
        await page.goto(`${url}/craft/curlew/73`);
        await expect(page.locator('#interrupted')).toContainText(/\d of 4 on the craft; not there, or not kept:/);
        await expect(page.locator('.changes tbody tr').first()).toContainText('half done');
        await started(page);
        await page.locator('#interrupted').getByRole('button', { name: 'Go on with it' }).click();
        await expect(page.locator('#interrupted')).toHaveCount(0);
        await expect(page.locator('.changes tbody tr').first()).toContainText('gain.roll.p 33 → 31');
        await expect(page.locator('.changes tbody tr').first()).not.toContainText('half done');
        await expect(page.locator('.tray-tab')).toBeHidden();

        // 5. Meanwhile somebody changes the craft elsewhere: linked again, it is asked of each setting which stands.
        await put(page, 'cable', false);
        const world = `${data}/bench/curlew/world.json`;
        const elsewhere = JSON.parse(readFileSync(world, 'utf8'));
        Object.assign(elsewhere.kept, { 'gain.roll.p': 27, 'gain.yaw.p': 44, 'motors.idle_pct': 7 });
        writeFileSync(world, JSON.stringify(elsewhere));
        await page.goto(`${url}/craft/curlew/11`);
        await put(page, 'cable', true);
        await page.getByRole('button', { name: 'Link', exact: true }).click();
        const h1 = page.getByRole('heading', { level: 1 });
        await expect(h1).toContainText('Book and craft differ in 3 settings.');
        await started(page);
        const row = (setting) => page.locator(`[data-believed="${setting}"]`);
        await expect(row('gain.roll.p')).toContainText(/31\.0.*27\.0/s);
        // By the keyboard: the first choice of a row, and the arrow to the other.
        await row('gain.roll.p').getByLabel('the craft’s').focus();
        await page.keyboard.press('ArrowRight');
        await expect(row('gain.roll.p').getByLabel('the book’s')).toBeChecked();
        await row('gain.yaw.p').getByText('the craft’s').click();
        await page.getByRole('button', { name: 'As marked' }).click();
        await expect(page.locator('#said')).toContainText('1 as on the craft, noted in the change record; 1 as in the book, staged');
        await expect(h1).toContainText('Book and craft differ in one setting.');
        await expect(page.locator('.tray-tab')).toHaveText('1 staged');
        await started(page);
        await page.getByRole('button', { name: 'All as on the craft' }).click();
        await expect(h1).toContainText('answers with Loam');
        await commit(page, 'as the book had it');
        expect(kept()).toBe(31);
        await page.goto(`${url}/craft/curlew/73`);
        await expect(page.locator('.changes tbody')).toContainText('Changed elsewhere');
        await expect(page.locator('.changes tbody')).toContainText(/gain\.yaw\.p \S+ → 44/);
    } finally {
        stop(server);
    }
});
