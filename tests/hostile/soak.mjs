// Many at once, for a while, over all sheets, while things are written and processes are killed: no wrong answer, no lost write.
import assert from 'node:assert/strict';
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { test } from 'node:test';
import { act, answers, ask, end, figure, kill, memory, start, wait } from './hands.mjs';

const CLIENTS = 50;
// SOAK_KILLS=0 lets all processes live: what leaks in them shows then.
const KILLS = process.env.SOAK_KILLS !== '0';

export default function soak(port, data, seconds) {
    test(`${CLIENTS} clients over all sheets for ${seconds} s, with flights, imports, Commits and killed processes`, async () => {
        const server = start(port, data);
        await answers(server);
        const sheets = [...(await ask(port, '/craft/curlew/11')).text.matchAll(/href="(\/craft\/curlew\/\d\d)" data-number/g)].map(
            (m) => m[1],
        );
        assert.ok(sheets.length > 20);
        const paths = [...sheets, ...sheets.map((path) => path.replace('curlew', 'bittern')), '/', '/craft/curlew/live.json'];
        const started = Date.now();
        const until = started + 1000 * seconds;
        // Four Commits and logs in the two minutes that it usually takes, and in proportion; a slow machine gets as long again for them.
        const least = seconds / 30;
        const commits = [];
        const imports = [];
        const few = () => commits.length < least || imports.length < least;
        const on = () => Date.now() < (few() ? until + 1000 * seconds : until);
        const wrong = [];
        const times = { page: [], live: [] };
        let torn = 0;

        const client = async (n) => {
            for (let i = n; on(); i += 7) {
                const live = i % 3 === 0;
                const path = live ? '/craft/curlew/live.json' : paths[i % paths.length];
                const began = performance.now();
                try {
                    const { status, text } = await ask(port, path, { timeout: 60_000 });
                    times[live ? 'live' : 'page'].push(performance.now() - began);
                    if (status === 502) torn += 1;
                    else if (status >= 400) wrong.push(`${path}: ${status} ${text.slice(0, 300)}`);
                    else if (!path.endsWith('.json') && !text.trimEnd().endsWith('</html>')) wrong.push(`${path}: cut off`);
                } catch (error) {
                    wrong.push(`${path}: ${error.message}`);
                }
                await wait(150);
            }
        };

        // Commits: each that is told as done is on record and on the craft; the last value told is what stands.
        const committing = async () => {
            await act(port, '/craft/curlew/bench', { thing: 'cable', to: '1' });
            await wait(500);
            await act(port, '/craft/curlew/link');
            for (let n = 0; on(); n++) {
                const p = 20 + (n % 40) / 2;
                const staged = await act(port, '/craft/curlew/stage', { values: { 'gain.roll.p': String(p) } });
                const page = (await ask(port, '/craft/curlew/73')).text;
                const seen = /id="commit"[\s\S]*?name="seen" value="(\d+)"/.exec(page)?.[1];
                if (staged.status === 200 && seen !== undefined) {
                    const done = await act(port, '/craft/curlew/commit', { reason: `soak ${n}`, seen, knowing: '1' });
                    if (done.status === 200) commits.push({ reason: `soak ${n}`, p });
                }
                await act(port, '/craft/curlew/commit/resume');
                await wait(400);
            }
        };

        // Logs are brought in on Bittern, one after the other; some of the work is killed, and told as such.
        const importing = async () => {
            for (let n = 0; on(); n++) {
                const rows = ['time_s,setpoint_roll_dps,rate_measured_roll_dps,rate_filtered_roll_dps'];
                for (let i = 0; i < 3000; i++) {
                    const v = 100 * Math.sin(i / (30 + n));
                    rows.push(`${(i / 1000).toFixed(4)},${v.toFixed(2)},${(0.95 * v).toFixed(2)},${(0.94 * v).toFixed(2)}`);
                }
                const csv = Buffer.from(`${rows.join('\n')}\n`);
                const begun = await act(port, '/uploads', { bytes: csv.length });
                if (begun.status !== 200) continue;
                const { upload } = JSON.parse(begun.text);
                const put = await ask(port, `/uploads/${upload}?offset=0`, { method: 'PUT', headers: { 'X-Ortholex': '1' }, body: csv });
                if (put.status !== 200) continue;
                const taken = await act(port, '/craft/bittern/logs/import', { upload, name: `soak ${n}.csv` });
                if (taken.status === 200) imports.push(`soak ${n}`);
                await wait(2500);
            }
        };

        const flying = async () => {
            for (let seed = 1; on(); seed++) {
                for (const thing of ['props', 'outdoors', 'transmitter', 'pack'])
                    await act(port, '/craft/curlew/bench', { thing, to: '1' });
                await act(port, '/craft/curlew/logs/fly', { card: 'hover_and_climb', seconds: 6, seed });
                await wait(15_000);
            }
        };

        // A worker of the server, or a piece of long work, now and then.
        let killed = 0;
        const killing = async () => {
            for (let n = 0; on() && KILLS; n++) {
                await wait(7000);
                const all = execFileSync('ps', ['-eo', 'pid=,ppid=,args='], { encoding: 'utf8' }).split('\n');
                const mine = all.filter((line) => {
                    const pid = Number(line.trim().split(/\s+/)[0]);
                    try {
                        return pid && readFileSync(`/proc/${pid}/environ`, 'utf8').includes(`ORTHOLEX_DATA=${data}\0`);
                    } catch {
                        return false;
                    }
                });
                const works = mine.filter((line) => /app:job|app:run-job/.test(line));
                const workers = mine.filter((line) => /php .*-S 127\.0\.0\.1/.test(line));
                const victims = n % 2 && works.length ? works : workers;
                const victim = victims[n % Math.max(1, victims.length)];
                if (victim && on()) {
                    kill(Number(victim.trim().split(/\s+/)[0]), 'SIGKILL');
                    killed += 1;
                }
            }
        };

        // What the front has, and what each PHP server behind it has: while one is replaced there are two for a moment.
        const weighed = [];
        const weighing = async () => {
            while (on()) {
                await wait(3000);
                const front = [];
                const behind = new Map();
                for (const line of execFileSync('ps', ['-eo', 'pid=,pgid=,args='], { encoding: 'utf8' }).split('\n')) {
                    const [pid, group] = line.trim().split(/\s+/).map(Number);
                    if (line.includes('serve.mjs')) front.push(pid);
                    else if (/php .*-S 127\.0\.0\.1/.test(line)) behind.set(group, [...(behind.get(group) ?? []), pid]);
                }
                weighed.push({ front: memory(front), php: [...behind.values()].map(memory) });
            }
        };

        await Promise.all([
            ...Array.from({ length: CLIENTS }, (_, n) => client(n)),
            committing(),
            importing(),
            flying(),
            killing(),
            weighing(),
        ]);
        const p = (list, share) => [...list].sort((a, b) => a - b)[Math.floor(share * (list.length - 1))]?.toFixed(0);
        figure(
            `soak, ${CLIENTS} clients, ${Math.round((Date.now() - started) / 1000)} s`,
            `${times.page.length} pages, ${times.live.length} live facts`,
        );
        figure('  pages', `p50 ${p(times.page, 0.5)} ms, p95 ${p(times.page, 0.95)} ms`);
        figure('  live facts', `p50 ${p(times.live, 0.5)} ms, p95 ${p(times.live, 0.95)} ms`);
        figure('  processes killed', `${killed}; answers torn by it and told so: ${torn}`);
        figure('  Commits told as done', commits.length);
        figure('  logs told as taken', imports.length);
        assert.deepEqual(wrong.slice(0, 5), [], `${wrong.length} wrong answers`);
        assert.ok(torn <= killed * 4, `${torn} torn answers of ${killed} killed processes`);

        // What was told is there. Work that was killed is told as interrupted, and started again where it can be.
        for (let i = 0; i < 60; i++) {
            const { jobs } = JSON.parse((await ask(port, '/craft/bittern/live.json')).text);
            for (const job of jobs) if (!job.open && job.state === 'interrupted') await act(port, `/jobs/${job.id}/again`);
            if (!jobs.some((job) => job.open || job.state === 'interrupted')) break;
            await wait(1000);
        }
        const changes = (await ask(port, '/craft/curlew/73')).text;
        for (const { reason } of commits.slice(-15)) assert.ok(changes.includes(reason), `${reason} is on record`);
        const logs = (await ask(port, '/craft/bittern/51')).text;
        const lost = imports.filter((name) => !logs.includes(name));
        assert.deepEqual(lost, [], 'every log that was taken is there');
        assert.ok(!few(), `${commits.length} Commits, ${imports.length} logs`);
        // Of thirds of the time the medians: which servers stood side by side at one moment is the killing's, not a leak.
        const third = Math.ceil(weighed.length / 3);
        const middle = (samples) => [...samples].sort((x, y) => x - y)[Math.floor(samples.length / 2)] ?? 0;
        for (const [what, of] of [
            ['front', (w) => [w.front]],
            ['a PHP server with its workers', (w) => w.php],
        ]) {
            const early = middle(weighed.slice(0, third).flatMap(of));
            const late = middle(weighed.slice(-third).flatMap(of));
            figure(`  memory of ${what}`, `${early.toFixed(0)} MB in the first third, ${late.toFixed(0)} MB in the last`);
            assert.ok(late < 1.25 * early + 20, `memory of ${what} is flat`);
        }
        await end(server);
    });
}
