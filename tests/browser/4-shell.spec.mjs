import AxeBuilder from '@axe-core/playwright';
import { expect, idOf, link, started, test } from './hands.mjs';

const BUILT = [
    '11',
    '12',
    '12/escs',
    '13',
    '14',
    '15',
    '15?do=rise',
    '15?do=feedback',
    '15?do=teach',
    '16',
    '41',
    '41?look=compass',
    '41?look=home',
    '42',
    '43',
    '43?look=video',
    '51',
    '52',
    '53',
    '54',
    '55',
    '51/C-0002',
    '52?log=C-0001&beside[]=C-0002',
    '53?log=C-0001&beside[]=C-0002',
    '54?log=C-0001&beside[]=C-0002',
    '62?log=C-0001&beside[]=C-0002',
    '63',
    '53/desk',
    '61',
    '62',
    '71',
    '72',
    '73',
];

// With the ids of the logs that it names.
const built = async (page) => {
    const ids = { 'C-0001': await idOf(page, 'curlew', 'C-0001'), 'C-0002': await idOf(page, 'curlew', 'C-0002') };
    return BUILT.map((s) => s.replaceAll(/C-000\d/g, (code) => ids[code]));
};

test('keys go to sheets, find anything, show themselves', async ({ page }) => {
    await page.goto('/craft/curlew/51');
    await expect(page.locator('html')).toHaveAttribute('data-started', '1');
    await page.keyboard.press('6');
    await page.keyboard.press('2');
    await expect(page).toHaveURL(/curlew\/62/);
    await expect(page.locator('html')).toHaveAttribute('data-started', '1');
    await page.keyboard.press('/');
    await page.keyboard.type('snap');
    await expect(page.locator('#search [role=option]').first()).toContainText('72 Snapshots');
    await page.keyboard.press('Enter');
    await expect(page).toHaveURL(/curlew\/72/);
    await expect(page.locator('html')).toHaveAttribute('data-started', '1');
    await page.keyboard.press('Control+k');
    await page.keyboard.type('xyzzy');
    await expect(page.locator('#search').getByText('Nothing has that name')).toBeVisible();
    await page.keyboard.press('Escape');
    await page.keyboard.press('?');
    await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(page.locator('.modal-backdrop')).toHaveCount(0);
    // What a name means is told by the mouse.
    await page.goto('/craft/curlew/54');
    await expect(page.locator('html')).toHaveAttribute('data-started', '1');
    await page.locator('.tabs [data-tip]').last().hover();
    await expect(page.getByRole('tooltip')).toContainText(/\w+ \w+/);
    await page.mouse.move(0, 0);
    await expect(page.getByRole('tooltip')).toHaveCount(0);
    // Digits typed into a field are digits.
    await page.goto('/craft/curlew/72');
    await page.getByLabel('Name', { exact: true }).fill('');
    await page.getByLabel('Name', { exact: true }).pressSequentially('53');
    await expect(page).toHaveURL(/curlew\/72/);
});

test('the strip folds away and the theme is kept', async ({ page }) => {
    await page.goto('/craft/curlew/54');
    await page.keyboard.press('b');
    await expect(page.locator('#bench [data-thing="cable"]')).toBeHidden();
    await page.getByRole('button', { name: 'Dark or light' }).click();
    await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
    await page.reload();
    await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
    await expect(page.locator('#bench [data-thing="cable"]')).toBeHidden();
    await page.keyboard.press('b');
    await expect(page.locator('#bench [data-thing="cable"]')).toBeVisible();
});

test('nothing is cut off at 900 wide', async ({ page }) => {
    await page.setViewportSize({ width: 900, height: 800 });
    for (const sheet of await built(page)) {
        await page.goto(`/craft/curlew/${sheet}`);
        const over = await page.evaluate(() =>
            [...document.querySelectorAll('.head, .tabs, .drawing, .says, .bench')]
                .filter((e) => e.scrollWidth > e.clientWidth + 1)
                .map((e) => e.className),
        );
        expect(over, sheet).toEqual([]);
    }
});

test('each craft is drawn within its card of the Workshop', async ({ page }) => {
    for (const width of [1280, 900]) {
        await page.setViewportSize({ width, height: 800 });
        await page.goto('/');
        const off = await page.locator('.shop-card').evaluateAll((cards) =>
            cards
                .map((card) => [card.getBoundingClientRect(), card.querySelector('.craft-drawing')])
                .filter(([card, drawing]) => {
                    const box = drawing.getBoundingClientRect();
                    const ground = getComputedStyle(drawing.parentElement).backgroundColor;
                    return box.left < card.left || box.right > card.right || ground !== 'rgba(0, 0, 0, 0)';
                })
                .map(([card]) => card.left),
        );
        expect(off).toEqual([]);
    }
});

test('a sheet prints with its title block and without the tools', async ({ page }) => {
    await page.goto('/craft/curlew/54');
    await page.emulateMedia({ media: 'print' });
    await expect(page.locator('.title')).toBeVisible();
    await expect(page.locator('.bench')).toBeHidden();
    await expect(page.locator('.head')).toBeHidden();
});

// The dark theme is the same page in other inks.
const INKS = ['color-contrast', 'link-in-text-block'];

for (const theme of ['light', 'dark']) {
    test(`axe finds nothing serious on any built sheet, ${theme}`, async ({ page, context, baseURL }) => {
        test.setTimeout(300_000);
        await context.addCookies([{ name: 'theme', value: theme, url: baseURL }]);
        await link(page, 'curlew');
        await page.goto('/craft/curlew/61?axis=yaw');
        await page.locator('[data-setting="gain.yaw.p"]').fill('45');
        await page.keyboard.press('Tab');
        await expect(page.locator('.tray-tab')).toHaveText('1 staged');
        for (const path of [
            '/',
            '/craft/curlew/13',
            '/craft/dunlin/11',
            '/craft/curlew/12?image=loam-26.06-quern-f7',
            ...(await built(page)).map((s) => `/craft/curlew/${s}`),
        ]) {
            await page.goto(path);
            await started(page);
            await expect(page.locator('html')).toHaveAttribute('data-theme', theme);
            if (path.endsWith('/61')) await page.locator('.tray-tab').click();
            const { violations } = await (theme === 'dark' ? new AxeBuilder({ page }).withRules(INKS) : new AxeBuilder({ page })).analyze();
            const serious = violations
                .filter((v) => ['serious', 'critical'].includes(v.impact))
                .map((v) => `${path}: ${v.id}: ${v.nodes.map((n) => n.html.slice(0, 120)).join(' | ')}`);
            expect(serious).toEqual([]);
            if (path.endsWith('/61')) await page.keyboard.press('Escape');
        }
        await page.getByRole('button', { name: 'Dark or light' }).focus();
        await page.goto('/craft/curlew/61');
        await page.locator('.tray-tab').click();
        await page.getByRole('button', { name: 'Discard all' }).click();
    });
}
