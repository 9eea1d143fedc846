// What docs/deploy.md promises, asked of a server that bin/deploy has started. DEPLOY_PORT, ORTHOLEX_DATA.
import assert from 'node:assert/strict';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { test } from 'node:test';
import { act, ask, figure, raw, root } from '../hostile/hands.mjs';

const port = Number(process.env.DEPLOY_PORT);
const head = (more) => `POST /craft/curlew/stage HTTP/1.1\r\nHost: 127.0.0.1:${port}\r\nX-Ortholex: 1\r\n${more}\r\n`;
const console_ = (...words) =>
    execFileSync('php', [join(root, 'bin/console'), ...words], { env: { ...process.env, APP_ENV: 'prod' }, encoding: 'utf8' });

test('it says how it is', async () => {
    const { status, text } = await ask(port, '/health');
    assert.equal(status, 200);
    assert.deepEqual({ ...JSON.parse(text), free_mb: 0 }, { sound: true, book: 'readable', disk: 'writable', free_mb: 0 });
});

test('other names, foreign writes and huge bodies are refused before they are read', async () => {
    const css = /href="(\/build\/[^"]+\.css)"/.exec((await ask(port, '/')).text)[1];
    for (const path of ['/', css, '/favicon.svg', '/health']) {
        assert.equal((await ask(port, path, { headers: { Host: 'elsewhere.example' } })).status, 421, path);
        const own = await ask(port, path);
        assert.equal(own.status, 200, path);
        for (const name of ['content-security-policy', 'x-content-type-options', 'cross-origin-resource-policy'])
            assert.ok(own.headers[name], `${path}: ${name}`);
    }
    assert.match((await ask(port, css)).headers['cache-control'], /immutable/);
    for (let i = 0; i < 8; i++) assert.match(await raw(port, head('Content-Length: 1000000000000\r\n'), 2000), /^HTTP\/1\.1 413 /);
    for (const more of ['Origin: http://elsewhere.example\r\n', 'Sec-Fetch-Site: cross-site\r\n'])
        assert.match(await raw(port, head(`${more}Content-Length: 4000000\r\n`), 3000), /^HTTP\/1\.1 403 /);
    assert.equal((await ask(port, '/build/../router.php')).status, 404);
});

test('pages and live facts at 20 clients that look as a page does', async () => {
    const paths = ['/craft/curlew/11', '/craft/curlew/61', '/craft/curlew/71', '/', '/craft/bittern/51'];
    for (const path of [...paths, '/craft/curlew/live.json']) for (let i = 0; i < 8; i++) await ask(port, path);
    for (const [what, of] of [
        ['pages', paths],
        ['live facts', ['/craft/curlew/live.json']],
    ]) {
        const times = [];
        await Promise.all(
            Array.from({ length: 20 }, async (_, n) => {
                await new Promise((done) => setTimeout(done, 50 * n));
                for (let i = n; i < n + 12; i++) {
                    const began = performance.now();
                    assert.equal((await ask(port, of[i % of.length])).status, 200);
                    times.push(performance.now() - began);
                    await new Promise((done) => setTimeout(done, 1000));
                }
            }),
        );
        times.sort((a, b) => a - b);
        figure(
            `${what}, 20 clients, each once a second`,
            `p50 ${times[times.length >> 1].toFixed(0)} ms, p95 ${times[Math.floor(0.95 * times.length)].toFixed(0)} ms`,
        );
    }
});

test('it is kept and brought back while it runs', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'ortholex-kept-'));
    try {
        assert.match(console_('backup', 'keep', join(folder, 'kept')), /Kept in .*: \d/);
        await act(port, '/craft/bittern/rename', { name: 'Whimbrel' });
        assert.match((await ask(port, '/')).text, /Whimbrel/);
        assert.match(console_('backup', 'restore', join(folder, 'kept')), /Brought back/);
        const shop = (await ask(port, '/')).text;
        assert.match(shop, /Bittern/);
        assert.doesNotMatch(shop, /Whimbrel/);
        assert.equal((await ask(port, '/craft/bittern/51')).status, 200);
    } finally {
        rmSync(folder, { recursive: true, force: true });
    }
});
