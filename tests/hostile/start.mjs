// Rough starts: cut short, on a taken port, in a folder of somebody else, under an odd path, killed in the middle.
import assert from 'node:assert/strict';
import { execFileSync } from 'node:child_process';
import { cpSync, existsSync, mkdirSync, readdirSync, readFileSync, statSync, symlinkSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { dirname, join } from 'node:path';
import { test } from 'node:test';
import { answers, ask, clear, end, figure, freed, interrupt, isFree, kill, root, start, wait } from './hands.mjs';

const MOMENTS = [700, 1200, 1800, 2500, 3200, 4200, 5500, 6500, 8000];

const childrenOf = (pid) => readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').trim().split(/\s+/).filter(Boolean).map(Number);
const inGroup = (pid) => {
    const all = execFileSync('ps', ['-eo', 'pgid=,stat='], { encoding: 'utf8' }).trim().split('\n');
    return all.map((line) => line.trim().split(/\s+/)).filter(([group, state]) => Number(group) === pid && !state.startsWith('Z')).length;
};

export default function starts(port, data) {
    test('a start that cannot be is told before anything is made', async () => {
        const none = `${data}-none`;
        for (const args of [['--port', '0'], ['--port', '65536'], ['--port', 'x'], ['--port=-1']]) {
            const refused = start(port, none, { args });
            assert.equal(await refused.ended, 2, args.join(' '));
            assert.match(refused.said(), /needs a number from 1 to 65535/);
        }
        const other = createServer().listen(port, '127.0.0.1');
        await wait(100);
        const taken = start(port, none);
        assert.equal(await taken.ended, 1);
        assert.match(taken.said(), new RegExp(`Port ${port} is taken by another program`));
        await new Promise((done) => other.close(done));
        assert.ok(!existsSync(none));
    });

    test('a folder of somebody else is left as it is, and a cause is named', async () => {
        const theirs = `${data}-theirs`;
        mkdirSync(theirs);
        writeFileSync(join(theirs, 'letter.txt'), 'mine');
        for (const args of [[], ['--fresh']]) {
            const refused = start(port, theirs, { args });
            assert.equal(await refused.ended, 1);
            assert.match(refused.said(), /holds something else than Ortholex data/);
        }
        assert.deepEqual(readdirSync(theirs), ['letter.txt']);
        const file = start(port, join(theirs, 'letter.txt'));
        assert.equal(await file.ended, 1);
        assert.match(file.said(), /is a file, not a folder/);
        const below = start(port, join(theirs, 'letter.txt', 'data'));
        assert.equal(await below.ended, 1);
        assert.match(below.said(), /Nothing can be written to/);
        clear(theirs);
    });

    test('set-up cut short at nine moments leaves nothing, and the next start makes all of it', async () => {
        for (const [n, ms] of MOMENTS.entries()) {
            const cut = start(port, data);
            await wait(ms);
            interrupt(cut.pid);
            await cut.ended;
            assert.ok(!existsSync(data), `cut at ${ms} ms: no half data folder`);
            for (let i = 0; i < 40 && readdirSync(dirname(data)).some((name) => name.includes('.making-')); i++) await wait(50);
            const left = readdirSync(dirname(data)).filter((name) => name.includes('.making-'));
            assert.deepEqual(left, [], `cut at ${ms} ms, ${n + 1} of ${MOMENTS.length}: ${cut.said()}`);
            assert.equal(inGroup(cut.pid), 0, 'no process goes on');
            assert.ok(await isFree(port));
        }
        // Killed outright, it can clear nothing away; the next start does.
        const killed = start(port, data);
        await wait(4000);
        kill(-killed.pid, 'SIGKILL');
        await killed.ended;
        const began = Date.now();
        const whole = start(port, data);
        await answers(whole);
        figure('a whole start after nine that were cut short', `${((Date.now() - began) / 1000).toFixed(1)} s`);
        const left = readdirSync(dirname(data)).filter((name) => name.includes('.making-'));
        assert.deepEqual(left, []);
        const shop = await ask(port, '/');
        for (const name of ['Dunlin', 'Curlew', 'Bittern']) assert.ok(shop.text.includes(name), name);
        const logs = (await ask(port, '/craft/curlew/51')).text;
        for (let n = 1; n <= 10; n++) assert.ok(logs.includes(`C-${String(n).padStart(4, '0')}`), `log ${n} of Curlew`);
        for (const slug of ['curlew', 'bittern', 'dunlin']) {
            const { bench } = JSON.parse((await ask(port, `/craft/${slug}/live.json`)).text);
            assert.equal(bench.pack, false, `${slug}: no pack was left on`);
        }
        await end(whole);
        assert.ok(await freed(port));
    });

    test('what is kept is for its owner alone', () => {
        assert.equal(statSync(data).mode & 0o777, 0o700);
        for (const name of readdirSync(data)) {
            const { mode } = statSync(join(data, name));
            assert.equal(mode & 0o077, 0, `${name}: ${(mode & 0o777).toString(8)}`);
        }
    });

    test('whatever part of it is killed, it answers again, and when it is killed nothing keeps the port', async () => {
        const server = start(port, data);
        await answers(server);
        const front = server.pid;
        const php = () => childrenOf(front).find((pid) => readFileSync(`/proc/${pid}/cmdline`, 'utf8').startsWith('php'));
        const master = php();
        kill(master, 'SIGKILL');
        const began = Date.now();
        assert.equal((await ask(port, '/craft/curlew/11')).status, 200);
        figure('first page after PHP was killed', `${Date.now() - began} ms`);
        await wait(4000);
        const [worker] = childrenOf(php());
        kill(worker, 'SIGKILL');
        for (let i = 0; i < 20; i++) assert.equal((await ask(port, '/craft/curlew/live.json')).status, 200);
        for (let i = 0; i < 80 && !server.said().includes('has lost a worker'); i++) await wait(100);
        assert.match(server.said(), /has lost a worker, and is replaced/);
        kill(front, 'SIGKILL');
        assert.ok(await freed(port), 'the port is free again');
        for (let i = 0; i < 40 && inGroup(php.last ?? 0) > 0; i++) await wait(50);
        const left = execFileSync('ps', ['-eo', 'args='], { encoding: 'utf8' }).split('\n');
        assert.ok(!left.some((line) => /php .*-S 127\.0\.0\.1/.test(line) && line.includes(data)), 'no PHP of it is left');
        const again = start(port, data);
        await answers(again);
        await end(again);
    });

    test('a checkout under a path with blanks, quotes and ü starts, by a link to bin/start', async () => {
        const odd = `${data}-odd/a b 'c" ü`;
        const there = join(odd, 'ortholex');
        mkdirSync(odd, { recursive: true });
        execFileSync('git', ['clone', '-q', root, there]);
        // What was changed and not committed yet goes along.
        for (const name of execFileSync('git', ['ls-files', '-m', '-o', '--exclude-standard', '-z'], { cwd: root }).toString().split('\0'))
            if (name && existsSync(join(root, name))) cpSync(join(root, name), join(there, name));
        for (const name of ['vendor', 'node_modules']) execFileSync('cp', ['-al', join(root, name), join(there, name)]);
        cpSync(data, join(odd, 'data'), { recursive: true });
        symlinkSync(join(there, 'bin/start'), join(odd, 'start'));
        const server = start(port, join(odd, 'data'), { bin: join(odd, 'start'), cwd: '/' });
        await answers(server);
        for (const path of ['/', '/craft/curlew/54', '/craft/curlew/12']) assert.equal((await ask(port, path)).status, 200, path);
        await end(server);
        assert.ok(await freed(port));
        clear(`${data}-odd`);
    });
}
