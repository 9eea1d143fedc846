import AxeBuilder from '@axe-core/playwright';
import { boxOf, expect, idOf, link, started, test } from './hands.mjs';

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
    // Whoever is quicker than the list need not press twice.
    await page.goto('/craft/curlew/51');
    await expect(page.locator('html')).toHaveAttribute('data-started', '1');
    const list = await page.locator('#search').getAttribute('data-url');
    await page.route(`**${list}`, async (route) => {
        await new Promise((done) => setTimeout(done, 1200));
        await route.continue();
    });
    await page.keyboard.press('/');
    await page.keyboard.type('snap');
    await expect(page.locator('#search').getByText('Nothing has that name')).toBeHidden();
    await page.keyboard.press('Enter');
    await expect(page).toHaveURL(/curlew\/72/);
    await page.unroute(`**${list}`);
    await expect(page.locator('html')).toHaveAttribute('data-started', '1');
    await page.keyboard.press('Control+k');
    await page.keyboard.type('xyzzy');
    await expect(page.locator('#search').getByText('Nothing has that name')).toBeVisible();
    await page.keyboard.press('Escape');
    await page.keyboard.press('?');
    await expect(page.getByRole('dialog', { name: 'Keys and words' })).toBeVisible();
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
    // Nothing is typed into a box that is ticked: from there keys go on as ever.
    await page.goto('/craft/curlew/53');
    await started(page);
    await page.getByRole('checkbox', { name: 'notches' }).focus();
    await page.keyboard.press('7');
    await page.keyboard.press('3');
    await expect(page).toHaveURL(/curlew\/73/);
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
            [...document.querySelectorAll('header.head, nav.tabs, div.drawing, aside.says, footer.bench')]
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

test('a link that is followed while a form is on its way is followed, and the form is not lost', async ({ page }) => {
    await page.goto('/craft/curlew/14');
    await started(page);
    await page.route('**/craft/curlew/bench', async (route) => {
        await new Promise((done) => setTimeout(done, 700));
        await route.continue();
    });
    const pack = page.locator('#thing-pack');
    const was = await pack.getAttribute('aria-pressed');
    await pack.click();
    await page.locator('.tabs a', { hasText: 'Motors' }).click();
    await expect(page).toHaveURL(/\/craft\/curlew\/15$/);
    await page.waitForTimeout(1200);
    await expect(page).toHaveURL(/\/craft\/curlew\/15$/);
    await expect(pack).toHaveAttribute('aria-pressed', was === 'true' ? 'false' : 'true');
    await page.unroute('**/craft/curlew/bench');
    await pack.click();
    await expect(pack).toHaveAttribute('aria-pressed', String(was));
});

test('what is pressed while a page is drawn anew is pressed in the new one; where it is gone, that is said', async ({ page }) => {
    await page.context().addCookies([{ name: 'tiller', value: 'open', url: 'http://127.0.0.1:8799' }]);
    await page.goto('/craft/curlew/21');
    await started(page);
    await page.route('**/craft/curlew/bench', async (route) => {
        await new Promise((done) => setTimeout(done, 700));
        await route.continue();
    });
    const [outdoors, button] = [page.locator('#thing-outdoors'), page.locator('#receiver-button')];
    const was = await outdoors.getAttribute('aria-pressed');
    const turned = was === 'true' ? 'false' : 'true';
    await expect(button).toHaveAttribute('aria-pressed', 'false');
    await outdoors.click();
    await button.click();
    await expect(page.locator('form[data-waiting] #receiver-button')).toBeVisible();
    // Another element stands where the form stood.
    await button.evaluate((b) => (b.form.outerHTML = b.form.outerHTML.replace(' data-waiting=""', '')));
    await expect(page.locator('form[data-waiting]')).toHaveCount(0);
    await expect(button).toHaveAttribute('aria-pressed', 'true');
    await expect(outdoors).toHaveAttribute('aria-pressed', turned);
    await outdoors.click();
    await button.click();
    // The page that comes has none that does the same.
    await button.evaluate((b) => {
        b.form.elements.thing.value = 'radio:gone';
        b.form.remove();
    });
    await expect(page.locator('#said')).toContainText('not on this page any more');
    await expect(outdoors).toHaveAttribute('aria-pressed', was);
    await page.unroute('**/craft/curlew/bench');
    await page.reload();
    await started(page);
    await expect(button).toHaveAttribute('aria-pressed', 'true');
    await button.click();
    await expect(button).toHaveAttribute('aria-pressed', 'false');
});

test('a switch of the bench that is pressed again and again among other presses ends where the last press put it', async ({ page }) => {
    await page.context().addCookies([{ name: 'tiller', value: 'open', url: 'http://127.0.0.1:8799' }]);
    await page.goto('/craft/curlew/21');
    await started(page);
    const [outdoors, button] = [page.locator('#thing-outdoors'), page.locator('#receiver-button')];
    await expect(button).toHaveText('Hold its button');
    const was = await outdoors.getAttribute('aria-pressed');
    const sent = [];
    page.on('request', (r) => {
        const body = r.method() === 'POST' && r.url().endsWith('/bench') ? new URLSearchParams(r.postData() ?? '') : null;
        if (body?.get('thing') === 'outdoors') sent.push(body.get('to'));
    });
    await page.route('**/craft/curlew/bench', async (route) => {
        await new Promise((done) => setTimeout(done, 150));
        await route.continue();
    });
    // Some come while the ones before them wait still, some while they are sent.
    for (let i = 0; i < 8; ++i) {
        await outdoors.click();
        await button.click();
        await page.waitForTimeout(130);
    }
    await expect.poll(() => sent.length).toBe(8);
    for (const [i, to] of sent.entries()) expect(to, `press ${i + 1}`).toBe((was === 'true') === (i % 2 === 0) ? '0' : '1');
    await expect(outdoors).toHaveAttribute('aria-pressed', String(was));
    // Whatever became of the other, which is no switch: it is let go.
    await expect(page.locator('form[data-waiting]')).toHaveCount(0);
    await page.waitForTimeout(1000);
    if ((await button.innerText()) !== 'Hold its button') await button.click();
    await expect(button).toHaveText('Hold its button');
});

test('what scripts have drawn takes the colours of the theme at once', async ({ page }) => {
    await page.goto('/craft/curlew/62');
    await expect(page.locator('html')).toHaveAttribute('data-started', '1');
    const picture = () =>
        page
            .locator('#filters-plot canvas')
            .first()
            .evaluate((canvas) => canvas.toDataURL());
    await page.locator('svg.trade-off').waitFor();
    await page.waitForTimeout(500);
    const before = await picture();
    await page.locator('#theme').click();
    await expect.poll(picture).not.toBe(before);
    await page.locator('#theme').click();
    await expect.poll(picture).toBe(before);
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

// Ours write no more of what holds than its number: most of the time went into that.
const axe = (page) => new AxeBuilder({ page }).options({ resultTypes: ['violations'] });

const serious = ({ violations }, where) =>
    violations
        .filter((v) => ['serious', 'critical'].includes(v.impact))
        .map((v) => `${where}: ${v.id}: ${v.nodes.map((n) => n.html.slice(0, 120)).join(' | ')}`);

test('axe finds nothing serious on any built sheet, light and dark', async ({ page }) => {
    test.setTimeout(420_000);
    await link(page, 'curlew');
    await page.goto('/craft/curlew/61?axis=yaw');
    await page.locator('[data-setting="gain.yaw.p"]').fill('45');
    await page.keyboard.press('Tab');
    await expect(page.locator('.tray-tab')).toHaveText('1 staged');
    for (const path of [
        '/',
        '/?group=next',
        '/workshop/new?built=faults&frame=rush-140',
        '/workshop/by-logs',
        '/craft/curlew/13',
        '/craft/dunlin/11',
        '/craft/curlew/staged',
        '/craft/curlew/12?image=loam-26.06-quern-f7',
        ...(await built(page)).map((s) => `/craft/curlew/${s}`),
    ]) {
        await page.goto(path);
        await started(page);
        if (path.endsWith('/61')) await page.locator('.tray-tab').click();
        if (path.endsWith('/11')) await page.locator('#points-1 summary').click();
        expect(serious(await axe(page).analyze(), path)).toEqual([]);
        await page.evaluate(() => {
            for (const one of [document.documentElement, document.body]) one.dataset.theme = 'dark';
        });
        expect(serious(await axe(page).withRules(INKS).analyze(), `${path}, dark`)).toEqual([]);
        if (path.endsWith('/61')) await page.keyboard.press('Escape');
    }
    await page.goto('/craft/curlew/61');
    await page.locator('.tray-tab').click();
    await page.getByRole('button', { name: 'Discard all' }).click();
});

test('enlarged by half, and on a wide screen, drawings use the room and nothing stands over anything', async ({ page }) => {
    for (const [width, height, least] of [
        [853, 533, 250],
        [2560, 1440, 700],
    ]) {
        await page.setViewportSize({ width, height });
        for (const [sheet, drawing] of [
            ['13', '#wiring'],
            ['15', '.drawing svg'],
            ['14', '.drawing svg'],
        ]) {
            await page.goto(`/craft/curlew/${sheet}`);
            await started(page);
            const box = await boxOf(page.locator(drawing).first());
            expect(box.height, `${sheet} at ${width}`).toBeGreaterThan(least);
        }
        // The loop of 61: each wire begins and ends within a block, however far they stand apart, and the plot ends above what follows.
        await page.goto('/craft/curlew/61');
        await started(page);
        const loose = await page.locator('#gain-loop').evaluate((loop) => {
            const blocks = [...loop.querySelectorAll('.block, .sum')].map((b) => b.getBoundingClientRect());
            const all = loop.querySelector('.wires').getBoundingClientRect();
            const ends = [...loop.querySelectorAll('.wires path')].map((p) => p.getPointAtLength(p.getTotalLength()));
            const inside = ({ x, y }) => blocks.some((b) => x >= b.left - 1 && x <= b.right + 1 && y >= b.top - 1 && y <= b.bottom + 1);
            return ends
                .map((p) => ({ x: all.left + (p.x * all.width) / 100, y: all.top + (p.y * all.height) / 100 }))
                .filter((p) => !inside(p)).length;
        });
        expect(loose, `wires that end nowhere at ${width}`).toBe(0);
        const plot = await boxOf(page.locator('.drawing canvas, .drawing svg.plot').last());
        const sheet = await boxOf(page.locator('.drawing'));
        expect(plot.y + plot.height, `61 at ${width}`).toBeLessThanOrEqual(sheet.y + sheet.height + 1);
    }
});
