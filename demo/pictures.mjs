// Refreshes docs/screenshots from a freshly started demo: `bin/start --fresh`, then `node demo/pictures.mjs http://127.0.0.1:8787`.
import { fileURLToPath } from 'node:url';
import { chromium } from '@playwright/test';

const base = process.argv[2] ?? 'http://127.0.0.1:8787';
const folder = fileURLToPath(new URL('../docs/screenshots/', import.meta.url));
const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: [
        '--headless',
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
    ],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const go = async (path) => {
    await page.goto(base + path);
    await page.waitForSelector('html[data-started]');
    await page.waitForTimeout(700);
};
const shot = (name) => page.screenshot({ path: `${folder}${name}.png` });
const settled = async () => {
    await page.waitForTimeout(6500);
};
const fly = async (card) => {
    await go('/craft/curlew/51');
    const rows = page.locator('#logs tbody tr[data-log]');
    const before = await rows.count();
    await page.getByRole('button', { name: card }).click();
    await page.waitForFunction((n) => document.querySelectorAll('#logs tbody tr[data-log]').length > n, before, { timeout: 90_000 });
    // A log can be seen before it is analysed; the picture shows what a flight tells.
    await page.getByRole('button', { name: 'Cancel' }).first().waitFor({ state: 'detached', timeout: 90_000 });
};

await go('/craft/curlew/11');
await page.locator('[data-thing="cable"]').click();
await page.getByRole('button', { name: 'Link', exact: true }).click();
await page.waitForSelector('#link-state[data-linked="1"]');
await page.locator('[data-thing="pack"]').click();
await page.waitForSelector('.esc-list');
await page.getByLabel('Tilt of the craft').selectOption('right_down');
await settled();
await page.getByLabel('Tilt of the craft').selectOption('level');

await go('/craft/curlew/51');
await page.getByRole('button', { name: 'Carry it out and make it ready' }).click();
await page.waitForTimeout(1500);
await fly(/Mixed sticks/);
await go('/craft/curlew/61');
await page.locator('#stage-next').click();
await page.locator('.tray-tab', { hasText: 'staged' }).waitFor();
await page.waitForTimeout(1800);
await shot('61-gains');
await page.keyboard.press('t');
await page.getByLabel('Why').fill('roll rings after quick moves');
await page.waitForTimeout(300);
await page.keyboard.press('Control+Enter');
await page.waitForTimeout(1500);
await fly(/Mixed sticks/);
await page.waitForTimeout(800);
await shot('51-logs');

// A filter held, with what it would leave; then feed-forward in steps.
await fly(/Hover and climb/);
const hover = await page.locator('#logs tbody tr[data-log]').first().getAttribute('data-log');
await go(`/craft/curlew/62?log=${hover}`);
await page.locator('#trade-off .knee').waitFor();
const grip = await page.locator('[data-of="rate_path-1"]').boundingBox();
await page.mouse.move(grip.x + grip.width / 2, grip.y + 8);
await page.mouse.down();
await page.mouse.move(grip.x + grip.width / 2 + 60, grip.y + 8, { steps: 6 });
await page.mouse.up();
await page.waitForTimeout(2500);
await shot('62-filters');
await page.request.post(`${base}/craft/curlew/discard`, { headers: { 'X-Ortholex': '1' } });
await go('/craft/curlew/63');
await page.locator('#series-vary').selectOption('both-ff');
await page.locator('#series-to').fill('2.4');
await page.locator('#series-plan input[name="steps"]').fill('5');
await page.getByRole('button', { name: 'Plan it' }).click();
await page.locator('#series-fly').click();
await page.waitForFunction(() => document.querySelectorAll('#series-flights tbody tr').length > 5, null, { timeout: 180_000 });
await page.waitForTimeout(1500);
await shot('63-series');
await page.locator('#series-end').click();
await page.waitForTimeout(800);
await go('/craft/curlew/51');
const ids = await page.locator('#logs tbody tr[data-log]').evaluateAll((rows) => rows.map((r) => r.dataset.log));
await go(`/craft/curlew/54?log=${ids[0]}&beside=${ids[1]}`);
await shot('54-response');
await go(`/craft/curlew/52?log=${ids[0]}`);
const box = await page.locator('#traces').boundingBox();
await page.mouse.move(box.x + 380, box.y + 60);
await page.mouse.down();
await page.mouse.move(box.x + 420, box.y + 60, { steps: 4 });
await page.mouse.up();
await page.waitForTimeout(700);
await page.mouse.move(box.x + 330, box.y + 120);
await page.waitForTimeout(300);
await shot('52-traces');
await go('/craft/curlew/53?log=2');
await page.getByLabel('pitch').check();
await page.waitForTimeout(300);
await shot('53-noise');
await go('/craft/bittern/51');
// The newest is the survey; before it came the one that ended in the reeds.
const fallen = await page.locator('#logs tbody tr[data-log]').nth(1).getAttribute('data-log');
await go(`/craft/bittern/55?log=${fallen}`);
await shot('55-incidents');
await go('/craft/dunlin/11');
await page.locator('[data-thing="cable"]').click();
await page.getByRole('button', { name: 'Link', exact: true }).click();
await page.waitForSelector('#link-state[data-linked="1"]');
await go('/craft/dunlin/14');
await page.locator('[data-pose="level"]').click();
await page.waitForTimeout(1200);
await page.getByLabel('Tilt of the craft').selectOption('nose_up');
await page.waitForTimeout(2000);
await page.locator('[data-pose="nose_up"]').click();
await page.waitForTimeout(1500);
await shot('14-frame');
await page.getByLabel('Tilt of the craft').selectOption('level');
await go('/craft/dunlin/15');
await page.locator('[data-thing="pack"]').click();
await page.waitForTimeout(2500);
await go('/craft/dunlin/13');
for (const [from, to] of [
    ['rill-c.v', '4V5'],
    ['rill-c.gnd', 'GND-L2'],
    ['rill-c.tx', 'RX1'],
    ['rill-c.rx', 'TX1'],
    ['heron-400.v', '9V'],
    ['heron-400.gnd', 'GND-R6'],
    ['heron-400.one', 'TX3'],
]) {
    await page.locator(`[data-spot="${from}"]`).focus();
    await page.keyboard.press('Enter');
    await page.locator(`[data-spot="${to}"]`).focus();
    await page.keyboard.press('Enter');
    await page.waitForTimeout(900);
}
await go('/craft/dunlin/15');
await page.locator('#bench [data-thing="props"]').click();
await page.waitForTimeout(1500);
await page.getByRole('button', { name: 'The props are off' }).click();
await page.waitForTimeout(1500);
const middle = async (selector) => {
    const box = await page.locator(selector).boundingBox();
    return [box.x + box.width / 2, box.y + box.height / 2];
};
// A pad is held, and its wire pulled to the motor that turns; two are shown, the third is on its way.
for (const [pad, place, way] of [
    [1, 'front_right', 'ArrowLeft'],
    [2, 'rear_left', 'ArrowRight'],
    [3, 'rear_right', ''],
]) {
    await page.mouse.move(...(await middle(`#pad-${pad} circle`)));
    await page.mouse.down();
    await page.waitForTimeout(900);
    await page.mouse.move(...(await middle(`#place-${place} .motor`)), { steps: 5 });
    if (way === '') break;
    await page.mouse.up();
    await page.waitForTimeout(1500);
    await page.keyboard.press(way);
    await page.waitForTimeout(1500);
}
await shot('15-motors');
await page.mouse.move(640, 140);
await page.mouse.up();
await page.waitForTimeout(600);
// Dunlin's radio: found, bound, its order shown and staged, and its sticks led round their ends.
const send = (path, data = {}) => page.request.post(base + path, { data, headers: { 'X-Ortholex': '1', Accept: 'application/json' } });
const bench = (slug, thing, to) => send(`/craft/${slug}/bench`, { thing, to });
const look = async (ms) => {
    for (const end = Date.now() + ms; Date.now() < end;) {
        await page.request.get(`${base}/craft/dunlin/radio/now.json`);
        await page.waitForTimeout(60);
    }
};
await bench('dunlin', 'pack', '0');
await send('/craft/dunlin/radio/find');
await go('/craft/dunlin/21');
await page.keyboard.press('t');
await page.getByLabel('Why').fill('the receiver, as it is heard');
await page.keyboard.press('Control+Enter');
await page.waitForTimeout(2500);
await bench('dunlin', 'transmitter', '1');
await bench('dunlin', 'radio:button', '1');
await bench('dunlin', 'cable', '0');
await bench('dunlin', 'cable', '1');
await bench('dunlin', 'radio:bind', '1');
await page.waitForTimeout(900);
await send('/craft/dunlin/link');
await send('/craft/dunlin/radio/capture', { kind: 'order' });
for (const stick of ['roll', 'pitch', 'throttle', 'yaw']) {
    await bench('dunlin', 'radio:sticks', `${stick}=1`);
    await look(500);
    await bench('dunlin', 'radio:let_go', '1');
    await look(500);
}
await send('/craft/dunlin/radio/stage', { what: 'order' });
await page.context().addCookies([{ name: 'tiller', value: 'open', url: base }]);
await go('/craft/dunlin/21');
await send('/craft/dunlin/radio/capture', { kind: 'spans' });
await page.reload();
await page.waitForTimeout(600);
for (let i = 0; i <= 40; ++i) {
    const at = (k) => Math.max(-1, Math.min(1, 1.35 * Math.sin((i * Math.PI) / 10 + k))).toFixed(2);
    await bench('dunlin', 'radio:sticks', `roll=${at(0)},pitch=${at(1.57)},yaw=${at(0.6)},throttle=${at(2.2)}`);
    await page.waitForTimeout(70);
}
await page.waitForTimeout(400);
await shot('21-radio');
await bench('dunlin', 'radio:let_go', '1');
await page.context().addCookies([{ name: 'tiller', value: 'shut', url: base }]);

await bench('curlew', 'transmitter', '1');
await send('/craft/curlew/discard');
await go('/craft/curlew/22');
const full = page.locator('[id="point-feel.roll.full_dps"]');
await full.focus();
for (let i = 0; i < 3; ++i) {
    await full.press('PageUp');
    await page.waitForTimeout(700);
}
await bench('curlew', 'radio:sticks', 'roll=0.62,pitch=0.3,throttle=-0.2,yaw=0.45');
await page.waitForTimeout(600);
await bench('curlew', 'radio:let_go', '1');
await bench('curlew', 'radio:sticks', 'throttle=-1');
await send('/craft/curlew/discard');
await bench('curlew', 'radio:lever.A', '1');
await send('/craft/curlew/switches/cell', { cell: 'position_hold.8.1', on: '1' });
await send('/craft/curlew/switches/cell', { cell: 'record.9.1', on: '1' });
await go('/craft/curlew/23');
await page.waitForTimeout(500);
await shot('23-switch-map');
await send('/craft/curlew/discard');

await page.context().addCookies([{ name: 'tiller', value: 'shut', url: base }]);
await go('/craft/dunlin/31');
await page.waitForTimeout(600);
await shot('31-interlocks');
await bench('curlew', 'radio:manner', 'stops');
await bench('curlew', 'radio:lever.B', '2');
await bench('curlew', 'props', '0');
await go('/craft/curlew/32');
await send('/craft/curlew/stage', { values: { 'link_loss.then': 'descend', 'link_loss.descend_throttle_pct': 32 } });
await send('/craft/curlew/link-loss/fly', { height: '30', wind: '3', used: '40' });
await page.locator('#path svg').waitFor({ timeout: 60_000 });
await page.waitForTimeout(800);
await shot('32-link-loss');
await send('/craft/curlew/discard');
await bench('curlew', 'pack', '1');
await go('/craft/curlew/33');
await page.waitForTimeout(600);
await shot('33-pack');
await bench('curlew', 'radio:manner', 'repeats');
await go('/');
await shot('workshop');

// Bittern: its module found, a fix, a compass that points, a return flown; its overlay, its camera.
await send('/craft/bittern/bench', { thing: 'cable', to: '1' });
await page.waitForTimeout(800);
await send('/craft/bittern/link');
await bench('bittern', 'pack', '1');
await bench('bittern', 'outdoors', '1');
await send('/craft/bittern/stage', { values: { 'uart.3.baud': '57600', 'overlay.voltage_from': 'pack' } });
await go('/craft/bittern/41');
await page.keyboard.press('t');
await page.getByLabel('Why').fill('the port as the module speaks');
await page.keyboard.press('Control+Enter');
await page.waitForTimeout(3000);
await page.locator('#cep').waitFor({ timeout: 120_000 });
await page.waitForTimeout(60_000);
await shot('41-location');
await go('/craft/bittern/42?layout=1');
await page.waitForTimeout(1500);
await shot('42-overlay');
await go('/craft/bittern/43');
await page.locator('#tilt-handle').focus();
for (let i = 0; i < 3; ++i) await page.keyboard.press('PageDown');
await page.waitForTimeout(1500);
await shot('43-camera');
await browser.close();
