// What a person does again and again, and a watch for anything the page complains about.
import { expect, test as base } from '@playwright/test';

export const test = base.extend({
    page: async ({ page }, use) => {
        const complaints = [];
        page.on('console', (m) => {
            if (m.type() === 'error' && !/status of 4\d\d|ERR_CONNECTION_REFUSED/.test(m.text())) complaints.push(m.text());
        });
        // A page that was on its way is given up for the next one: no complaint.
        page.on('pageerror', (e) => !/signal is aborted/.test(e.message) && complaints.push(e.message));
        await use(page);
        expect(complaints, 'the page complained').toEqual([]);
    },
});

export { expect };

export const thing = (page, name) => page.locator(`#bench button[data-thing="${name}"]`);

// The page's scripts have started, so that a click is not lost.
export const started = (page) => expect(page.locator('html')).toHaveAttribute('data-started', '1');

/** Rests the pointer on a drawing until its reading says something; what is still being fetched has nobody listening yet. */
export async function readAt(page, drawing, position, says) {
    let nudge = 0;
    await expect(async () => {
        await page.locator(drawing).hover({ position: { x: position.x + (nudge++ % 2), y: position.y } });
        await expect(page.locator('#reading')).toContainText(says, { timeout: 1000 });
    }).toPass({ timeout: 20000 });
}

export async function put(page, name, on) {
    await started(page);
    const button = thing(page, name);
    if ((await button.getAttribute('aria-pressed')) !== String(on)) await button.click();
    await expect(button).toHaveAttribute('aria-pressed', String(on));
}

export async function link(page, slug) {
    await page.goto(`/craft/${slug}/11`);
    await put(page, 'cable', true);
    await expect(page.getByRole('heading', { level: 1 })).toContainText(/cable is in|answers/);
    const button = page.getByRole('button', { name: 'Link', exact: true });
    await started(page);
    if (await button.count()) await button.click();
    await expect(page.locator('#link-state')).toHaveAttribute('data-linked', '1');
    // Drawn by the server: the page has come back from linking.
    await expect(page.getByRole('heading', { level: 1 })).toContainText(/answers/);
    await started(page);
}

/** Where it stands on the screen; a page that is just being refreshed is waited for. */
export async function boxOf(locator) {
    let box = null;
    await expect(async () => {
        box = await locator.boundingBox();
        expect(box).not.toBeNull();
    }).toPass({ timeout: 10_000 });
    return box;
}

export const trayIsOpen = (page) => page.locator('#tray').evaluate((tray) => tray.open);

/** Id of a log by its code: crafts fly their past side by side, so that ids come as they come. */
export async function idOf(page, slug, code) {
    await page.goto(`/craft/${slug}/51`);
    return page.locator('#logs tbody tr[data-log]', { hasText: code }).first().getAttribute('data-log');
}

// Commits what is staged, and waits until the page has come back with its new revision.
export async function commit(page, reason) {
    const revision = page.locator('.title .fig').nth(1);
    const before = await revision.innerText();
    if (!(await trayIsOpen(page))) await page.locator('.tray-tab').click();
    await page.getByLabel('Why').fill(reason);
    await page.keyboard.press('Control+Enter');
    await expect(revision).not.toHaveText(before);
    await expect(page.locator('html')).toHaveAttribute('data-started', '1');
}

export async function ready(page, slug) {
    await page.goto(`/craft/${slug}/51`);
    const button = page.getByRole('button', { name: 'Carry it out and make it ready' });
    if (await button.count()) await button.click();
    await expect(page.getByRole('heading', { name: 'Ready to fly', exact: true })).toBeVisible();
}

/** Flies a card; on return the log is in the book, and unless told otherwise its analysis is there too. */
export async function fly(page, slug, card, looked = true) {
    await page.goto(`/craft/${slug}/51`);
    const before = await page.locator('#logs tbody tr[data-log]').count();
    await page.getByRole('button', { name: card }).click();
    await expect(page.locator('.job .progress')).toBeVisible();
    await expect(page.locator('#logs tbody tr[data-log]')).toHaveCount(before + 1, { timeout: 90_000 });
    if (looked) await expect(page.locator('.job .progress')).toHaveCount(0, { timeout: 90_000 });
    return page.locator('#logs tbody tr[data-log]').first().getAttribute('data-log');
}
