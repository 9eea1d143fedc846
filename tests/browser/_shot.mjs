import { chromium } from '@playwright/test';
const [,, base, w, h, ...rest] = process.argv;
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--headless', '--no-sandbox', '--disable-gpu'] });
const page = await browser.newPage({ viewport: { width: Number(w), height: Number(h) } });
page.on('console', (m) => { if (m.type() === 'error') console.log('CONSOLE', m.text()); });
page.on('pageerror', (e) => console.log('ERROR', e.message));
for (const step of rest) {
  const [verb, ...args] = step.split('|');
  if (verb === 'go') { await page.goto(base + args[0]); await page.waitForTimeout(900); }
  if (verb === 'shot') { await page.screenshot({ path: `/tmp/shots/${args[0]}.png` }); }
  if (verb === 'click') { await page.locator(args[0]).first().click(); await page.waitForTimeout(Number(args[1] ?? 500)); }
  if (verb === 'check') { await page.locator(args[0]).check(); await page.waitForTimeout(500); }
  if (verb === 'hover') { await page.locator(args[0]).hover({ position: { x: Number(args[1]), y: Number(args[2]) } }); await page.waitForTimeout(200); }
  if (verb === 'select') { await page.locator(args[0]).selectOption(args[1]); await page.waitForTimeout(800); }
  if (verb === 'fill') { await page.locator(args[0]).fill(args[1]); }
  if (verb === 'press') { await page.keyboard.press(args[0]); await page.waitForTimeout(500); }
  if (verb === 'theme') { await page.evaluate((t) => { document.documentElement.dataset.theme = t; document.dispatchEvent(new CustomEvent('theme')); }, args[0]); await page.waitForTimeout(300); }
  if (verb === 'wait') { await page.waitForTimeout(Number(args[0])); }
  if (verb === 'text') { console.log(await page.locator(args[0]).first().innerText()); }
  if (verb === 'eval') { console.log(await page.evaluate(args.join('|'))); }
}
await browser.close();
