// What is sent to a running server: too much, too slow, from elsewhere, unreadable; and readers that do not read.
import assert from 'node:assert/strict';
import { connect } from 'node:net';
import { test } from 'node:test';
import { act, answers, ask, end, figure, raw, start, wait } from './hands.mjs';

const HEAD = (port, more) => `POST /craft/curlew/stage HTTP/1.1\r\nHost: 127.0.0.1:${port}\r\nX-Ortholex: 1\r\n${more}\r\n`;
const POLICY = ['content-security-policy', 'x-content-type-options', 'cross-origin-resource-policy'];

export default function bodies(port, data) {
    let server;

    test('it is started for what follows', async () => {
        server = start(port, data);
        await answers(server);
    });

    test('a huge body is refused before any of it is read', async () => {
        for (let i = 0; i < 8; i++) {
            const said = await raw(port, HEAD(port, 'Content-Length: 1000000000000\r\nContent-Type: application/json\r\n'));
            assert.match(said, /^HTTP\/1\.1 413 /);
            assert.match(said, /taken in by pieces/);
        }
        for (const length of ['99999999999999999999', '-1', '1e9', '0x10', '12abc']) {
            const said = await raw(port, HEAD(port, `Content-Length: ${length}\r\n`), 1500);
            assert.match(said, /^HTTP\/1\.1 4(00|13) /, length);
        }
        // Without a length it is counted as it comes.
        const piece = `10000\r\n${'x'.repeat(65536)}\r\n`;
        const said = await raw(port, HEAD(port, 'Transfer-Encoding: chunked\r\n') + piece.repeat(200), 5000);
        assert.ok(said === '' || /^HTTP\/1\.1 413 /.test(said), said.slice(0, 80));
        const expecting = await raw(port, HEAD(port, 'Content-Length: 500000000\r\nExpect: 100-continue\r\n'), 2000);
        assert.match(expecting, /^HTTP\/1\.1 413 /, 'nobody is asked to send it');
        assert.equal((await ask(port, '/craft/curlew/11')).status, 200);
    });

    test('what comes from elsewhere is refused before its body is read', async () => {
        for (const more of ['Origin: http://elsewhere.example\r\n', 'Sec-Fetch-Site: cross-site\r\n']) {
            const began = Date.now();
            const said = await raw(port, HEAD(port, `${more}Content-Length: 4000000\r\n`), 3000);
            assert.match(said, /^HTTP\/1\.1 403 /, more);
            assert.ok(Date.now() - began < 1500);
        }
        const css = /href="(\/build\/[^"]+\.css)"/.exec((await ask(port, '/')).text)[1];
        for (const path of ['/', css, '/favicon.svg', '/craft/curlew/live.json', '/nothing']) {
            const foreign = await ask(port, path, { headers: { Host: 'elsewhere.example' } });
            assert.equal(foreign.status, 421, path);
            for (const name of POLICY) assert.ok(foreign.headers[name], `${path}: ${name}`);
        }
        for (const path of [
            '/',
            css,
            '/favicon.svg',
            '/craft/curlew/live.json',
            '/nothing',
            '/build/nothing.js',
            '/craft/curlew/52?log=77777',
        ]) {
            const own = await ask(port, path);
            for (const name of POLICY) assert.ok(own.headers[name], `${path}: ${name}`);
            assert.ok(own.headers['content-type'], `${path}: a type`);
        }
        assert.equal((await ask(port, '/build/../../composer.json')).status, 404);
        assert.equal((await ask(port, '/build/%2e%2e/%2e%2e/composer.json')).status, 404);
    });

    test('broken requests are answered as such, with the policy', async () => {
        for (const bytes of [
            'GET / HTTP/9.9\r\n\r\n',
            '\x00\x01\x02\r\n\r\n',
            'GET\r\n\r\n',
            `GET / HTTP/1.1\r\nHost: 127.0.0.1\r\nX: ${'y'.repeat(40_000)}\r\n\r\n`,
        ]) {
            const said = await raw(port, bytes, 2000);
            assert.match(said, /^HTTP\/1\.1 4\d\d /, JSON.stringify(bytes.slice(0, 20)));
            assert.match(said, /Content-Security-Policy/i);
        }
    });

    test('slow clients and readers that do not read keep nobody waiting', async () => {
        const slow = Array.from({ length: 60 }, () => {
            const socket = connect(port, '127.0.0.1', () => socket.write('GET /craft/curlew/54 HTTP/1.1\r\nHost: 127.0.0.1\r\nX-Slow: '));
            socket.on('error', () => {});
            return socket;
        });
        const halves = Array.from({ length: 20 }, () => {
            const socket = connect(port, '127.0.0.1', () => socket.write(`${HEAD(port, 'Content-Length: 100000\r\n')}{"values"`));
            socket.on('error', () => {});
            return socket;
        });
        const log = /data-log="(\d+)"/.exec((await ask(port, '/craft/curlew/51')).text)[1];
        const unread = Array.from({ length: 12 }, () => {
            const socket = connect(port, '127.0.0.1', () =>
                socket.write(`GET /craft/curlew/logs/${log}.csv HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n`),
            );
            socket.pause();
            socket.on('error', () => {});
            return socket;
        });
        await wait(1000);
        const times = [];
        for (let i = 0; i < 30; i++) {
            const began = Date.now();
            assert.equal((await ask(port, '/craft/curlew/live.json')).status, 200);
            times.push(Date.now() - began);
        }
        times.sort((a, b) => a - b);
        figure('live facts beside 60 slow clients, 20 half bodies and 12 unread logs', `p50 ${times[15]} ms, worst ${times[29]} ms`);
        assert.ok(times[29] < 5000);
        for (const socket of [...slow, ...halves, ...unread]) socket.destroy();
    });

    test('200 connections at once for a while, without an error', async () => {
        const until = Date.now() + 20_000;
        const paths = ['/craft/curlew/live.json', '/', '/craft/bittern/live.json', '/craft/curlew/71', '/favicon.svg'];
        let count = 0;
        await Promise.all(
            Array.from({ length: 200 }, async (_, i) => {
                for (let n = i; Date.now() < until; n++, count++)
                    assert.equal((await ask(port, paths[n % paths.length], { timeout: 60_000 })).status, 200);
            }),
        );
        figure('200 connections at once, 20 s', `${count} answers, all 200`);
    });

    test('text that cannot be read is refused at its field, whatever the action', async () => {
        const form = (path, body) =>
            ask(port, path, {
                method: 'POST',
                headers: { 'X-Ortholex': '1', 'Content-Type': 'application/x-www-form-urlencoded', Accept: 'application/json' },
                body,
            });
        for (const bad of ['%ff%fe', 'a%00b', '%c3%28', '%ed%a0%80']) {
            for (const [path, field] of [
                ['/craft/curlew/commit', 'reason'],
                ['/craft/curlew/stage', 'values[gain.roll.p]'],
                ['/craft/curlew/rename', 'name'],
                ['/workshop/by-logs', 'name'],
            ]) {
                const answer = await form(path, `${encodeURIComponent(field)}=${bad}`);
                assert.equal(answer.status, 422, `${path} ${bad}: ${answer.text.slice(0, 200)}`);
            }
        }
        assert.equal((await ask(port, '/')).status, 200);
        assert.equal((await act(port, '/uploads', { bytes: 1e30 })).status, 422);
    });

    test('it is ended', () => end(server));
}
