// The Workshop: craft put together, known by their logs, copied, put away; books out and in.
import { readFileSync } from 'node:fs';
import { expect, idOf, started, test, trayIsOpen } from './hands.mjs';

test('a craft is put together by its parts, drawn at each choice, and linked', async ({ page }) => {
    await page.goto('/');
    await page.getByRole('link', { name: 'Put a craft on the bench' }).click();
    await started(page);
    const h1 = page.locator('#new-craft-drawn h1');
    await expect(h1).toContainText('It flies: hover at');
    await page.locator('#making [name="frame"]').selectOption('rush-140');
    await expect(h1).toHaveText('These parts make no craft yet');
    await expect(page.locator('.minded .refuse')).toContainText(['The props would meet']);
    await expect(page.getByLabel('Corner to corner')).toHaveValue('140');
    await page.locator('#making [name="prop"]').selectOption('reed-76-3');
    await page.locator('#making [name="motor"]').selectOption('whin-14');
    await page.locator('#making [name="pack"]').selectOption('sedge-4-085');
    await expect(h1).toContainText('It flies');
    // What is chosen stands in the address: another theme loses nothing of it.
    await expect(page).toHaveURL(/pack=sedge-4-085/);
    await page.getByRole('button', { name: 'Dark or light' }).click();
    await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
    await expect(page.locator('#making [name="pack"]')).toHaveValue('sedge-4-085');
    await page.getByRole('button', { name: 'Dark or light' }).click();
    await expect(page.locator('html')).toHaveAttribute('data-theme', 'light');
    await page.getByLabel('with honest mistakes, to practise on').check();
    await page.getByText('Choose them instead').click();
    await page.getByLabel('the receiver was never set up').check();
    await page.getByLabel('Name', { exact: true }).fill('Sanderling');
    await page.getByRole('button', { name: 'Put it on the bench' }).click();
    await expect(page).toHaveURL(/\/craft\/sanderling\/11$/);
    await page.locator('#thing-cable').click();
    await page.getByRole('button', { name: /^Link/ }).first().click();
    await expect(page.locator('h1')).toContainText('Quern F7 answers with Loam');
    // The mark of Build is a list, and leads on.
    await page.locator('#points-1 summary').click();
    await page
        .locator('#points-1')
        .getByRole('link', { name: /wires drawn/ })
        .click();
    await expect(page).toHaveURL(/\/13$/);
});

test('a craft is renamed, copied, put away and brought back', async ({ page }) => {
    await page.goto('/');
    await started(page);
    const card = (name) => page.locator('.shop-card', { has: page.getByRole('heading', { name, exact: true }) });
    await card('Sanderling').locator('.keeping > summary').click();
    await card('Sanderling').getByLabel('Name', { exact: true }).fill('Knot');
    await card('Sanderling').getByRole('button', { name: 'Rename' }).click();
    // What was opened stays open while the page is drawn anew.
    await card('Knot').getByRole('button', { name: 'Copy' }).click();
    await expect(card('Knot 2')).toBeVisible();
    await card('Knot 2').locator('.keeping > summary').click();
    await card('Knot 2').getByRole('button', { name: 'Put away' }).click();
    await expect(card('Knot 2')).toBeHidden();
    await page.locator('#away > summary').click();
    await page.getByRole('button', { name: 'Bring Knot 2 back' }).click();
    await expect(card('Knot 2')).toBeVisible();
    // Found by the keyboard.
    await page.keyboard.press('/');
    await page.keyboard.type('knot');
    await expect(page.locator('.shop-card')).toHaveCount(2);
    await page.goto('/?group=kind&order=name');
    await expect(page.locator('h2.group').first()).toContainText('3-inch, 4-cell');
    await page.keyboard.press('?');
    const words = page.getByRole('dialog', { name: 'Keys and words' });
    await expect(words.locator('.of-words')).toContainText('changed on screen, not yet on the craft');
});

test('from a foreign table to a list of changes, with no board anywhere', async ({ page }) => {
    const id = await idOf(page, 'curlew', 'C-0001');
    const own = await (await page.request.get(`/craft/curlew/logs/${id}.csv`)).text();
    // As another program might have written it: no head, other names, semicolons.
    const lines = own.split('\n').filter((l) => !l.startsWith('#'));
    const head = lines[0].replace('time_s', 't [s]').replaceAll(',', ';');
    const foreign = [head, ...lines.slice(1).map((l) => l.replaceAll(',', ';'))].join('\n');
    await page.goto('/');
    await page.getByRole('link', { name: 'Add one by its logs' }).click();
    await expect(page).toHaveURL(/\/workshop\/by-logs$/);
    await page.getByLabel('Name', { exact: true }).fill('Friend');
    await page.getByRole('button', { name: 'Add it, and bring in a log' }).click();
    await expect(page).toHaveURL(/\/craft\/friend\/51$/);
    await expect(page.locator('#bench')).toHaveCount(0);
    await page.locator('input[name="upload"]').setInputFiles({ name: 'theirs.csv', mimeType: 'text/csv', buffer: Buffer.from(foreign) });
    const ask = page.getByRole('button', { name: 'Bring it in', exact: true });
    await expect(page.locator('#logs').getByText('theirs.csv').or(ask)).toBeVisible({ timeout: 60_000 });
    if (await ask.isVisible()) await ask.click();
    await expect(page.locator('#logs')).toContainText('F-0001', { timeout: 90_000 });
    await page.goto('/craft/friend/54');
    await expect(page.locator('h1')).toContainText(/overshoots|clean/, { timeout: 90_000 });
    await page.goto('/craft/friend/61');
    await started(page);
    await page.locator('[data-setting="gain.roll.p"]').fill('20');
    await page.keyboard.press('Tab');
    await expect(page.locator('.tray-tab')).toHaveText('1 staged');
    await page.locator('.tray-tab').click();
    const saved = page.waitForEvent('download');
    await page.locator('#tray').getByRole('link', { name: 'file' }).click();
    expect(readFileSync(await (await saved).path(), 'utf8')).toContain('gain.roll.p: 20.0');
    await page.locator('#tray').getByRole('link', { name: 'list to print' }).click();
    await expect(page.locator('.to-set')).toContainText('gain.roll.p');
    await page.goto('/craft/friend/61');
    await started(page);
    if (!(await trayIsOpen(page))) await page.keyboard.press('t');
    await page.getByLabel('Why').fill('softer roll');
    await page.getByRole('button', { name: /They are set/ }).click();
    await page.goto('/craft/friend/73');
    await expect(page.locator('main')).toContainText('Set by hand');
    await expect(page.locator('main')).toContainText('softer roll');
});

test('a book is saved, and brought in as a craft of its own', async ({ page }) => {
    await page.goto('/craft/friend/book');
    await page.getByLabel('names, notes and reasons, as you wrote them').check();
    const saved = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Save the book' }).click();
    const path = await (await saved).path();
    await page.goto('/workshop/book');
    await started(page);
    await page.locator('input[name="upload"]').setInputFiles({ name: 'no.zip', mimeType: 'application/zip', buffer: Buffer.from('PK') });
    await expect(page.locator('#import-problem')).toContainText('not a whole zip file');
    await page.locator('input[name="upload"]').setInputFiles(path);
    await expect(page).toHaveURL(/\/craft\/friend-2\/book$/, { timeout: 30_000 });
    await expect(async () => {
        await page.reload();
        await expect(page.locator('#came-in')).toContainText('How it came in');
    }).toPass({ timeout: 60_000 });
    await expect(page.locator('#came-in')).toContainText('Nothing was left out.');
    await page.goto('/craft/friend-2/73');
    await expect(page.locator('main')).toContainText('softer roll');
    for (const slug of ['friend', 'friend-2', 'sanderling', 'knot-2']) {
        await page.request.post(`/craft/${slug}/put-away`, { headers: { Origin: new URL(page.url()).origin } });
    }
});

test('71: a setting is searched, changed where it stands, and leads to its sheet', async ({ page }) => {
    await page.goto('/craft/curlew/71');
    await started(page);
    await page.getByRole('searchbox').last().fill('d path cutoff');
    await expect(page.locator('.settings tbody tr:not(.group)')).toHaveCount(2);
    await page.locator('[data-setting="d_path.stage.1.cutoff_hz"]').fill('90');
    await page.keyboard.press('Tab');
    await expect(page.locator('.tray-tab')).toHaveText('1 staged');
    await page.getByRole('link', { name: 'd_path.stage.1.cutoff_hz' }).click();
    await expect(page).toHaveURL(/\/62\?setting=/);
    await page.keyboard.press('t');
    await page.getByRole('button', { name: 'Discard all' }).click();
});

test('the whole book prints as one: a cover, every sheet on a page of its own, and the settings as a list', async ({ page }) => {
    await page.goto('/craft/curlew/book');
    await page.getByRole('link', { name: 'the whole book, sheet by sheet' }).click();
    const print = page.getByRole('button', { name: 'Print, or save as PDF' });
    await expect(print).toBeDisabled();
    await expect(page.locator('#leaves-drawn')).toHaveText('All sheets are drawn.', { timeout: 120_000 });
    await expect(print).toBeEnabled();
    const leaves = page.locator('[data-leaf]');
    const count = await leaves.count();
    expect(count).toBeGreaterThan(20);
    for (let n = 0; n < count; n++) {
        const leaf = leaves.nth(n).contentFrame();
        const name = await leaves.nth(n).getAttribute('aria-label');
        await expect(leaf.getByRole('heading', { level: 1 }), name).not.toBeEmpty();
        await expect(leaf.locator('.tabs, .bench, .btn').filter({ visible: true }), name).toHaveCount(0);
        const { wide, high, room } = await leaf.locator('body').evaluate((body) => ({
            wide: document.documentElement.scrollWidth,
            high: document.getElementById('body').getBoundingClientRect().bottom,
            room: body.ownerDocument.defaultView.innerHeight,
        }));
        expect(wide, name).toBeLessThanOrEqual(1240);
        expect(high, name).toBeLessThanOrEqual(room + 1);
    }
    // Drawn from figures that are fetched: the sheet has ink on its canvas.
    const inked = await leaves
        .nth(await leaves.evaluateAll((all) => all.findIndex((one) => one.dataset.leaf.includes('/52'))))
        .contentFrame()
        .locator('canvas')
        .first()
        .evaluate((c) =>
            c
                .getContext('2d')
                .getImageData(0, 0, c.width, c.height)
                .data.some((v) => v > 0),
        );
    expect(inked).toBe(true);
    const pages = (await page.pdf({ preferCSSPageSize: true })).toString('latin1').match(/\/Type \/Page\b(?!s)/g).length;
    expect(pages).toBeGreaterThanOrEqual(count + 2);
    expect(pages).toBeLessThan(count + 14);
});
