#!/usr/bin/env node
// Kills the application and its database at random while writers edit several platforms, and looks after each round
// whether everything acknowledged is there: node e2e/kill-campaign.mjs [ROUNDS] [SEED]
//
// A writer gives its platform one name after the other, each with a number. After a round every acknowledged revision
// must have the title that was acknowledged, and the document at the end must be the last one.

import { execFile, execFileSync } from 'node:child_process'
import { mkdtempSync, chmodSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, dirname } from 'node:path'
import { fileURLToPath } from 'node:url'

const rounds = Number(process.argv[2] ?? 10)
let seed = Number(process.argv[3] ?? Date.now() % 100000)
const platforms = 4
const home = dirname(dirname(fileURLToPath(import.meta.url)))
const launcher = join(home, 'polymetron')
const state = mkdtempSync(join(tmpdir(), 'polymetron-kill-'))
chmodSync(state, 0o711)
const port = 20000 + (Date.now() % 10000)
const environment = {
    ...process.env,
    POLYMETRON_STATE: state,
    POLYMETRON_PORT: String(port),
    POLYMETRON_DB_PORT: String(port + 10000),
}

/** xorshift32 (Marsaglia, 2003): the same seed gives the same kills. */
function random(below) {
    seed ^= seed << 13
    seed ^= seed >>> 17
    seed ^= seed << 5
    return (seed >>> 0) % below
}

const sleep = (millis) => new Promise((resolve) => setTimeout(resolve, millis))
const run = (...words) =>
    new Promise((resolve, reject) =>
        execFile(launcher, words, { env: environment }, (error, out, said) =>
            error ? reject(new Error(said)) : resolve(out.trim()),
        ),
    )

let url = ''

async function ask(path, body) {
    const answer = await fetch(url + path, {
        signal: AbortSignal.timeout(20_000),
        ...(body && {
            method: 'POST',
            headers: { 'Content-Type': 'application/json' },
            body: JSON.stringify(body),
        }),
    })
    return { status: answer.status, json: answer.status === 204 ? undefined : await answer.json() }
}

class Writer {
    /** Since the last look; what was right then is right. */
    acknowledged = new Map()
    total = 0
    newest = 0
    number = 0
    refused = 0

    constructor(id) {
        this.id = id
    }

    async write(isOver) {
        let revision = 0
        while (!isOver()) {
            const name = `Number ${++this.number}`
            try {
                revision ||= (await ask(`api/platforms/${this.id}`)).json.revision ?? 0
                const { status, json } = await ask(`api/platforms/${this.id}/edits`, {
                    revision,
                    edit: { edit: 'rename-platform', name },
                })
                if (status === 200) {
                    revision = json.revision
                    this.acknowledged.set(revision, `name the platform ${name}`)
                    this.total++
                    this.newest = revision
                } else {
                    this.refused++
                    revision = 0
                }
            } catch {
                this.refused++
                revision = 0
                await sleep(50)
            }
        }
    }

    /** Acknowledged revisions that are not there as they were acknowledged. */
    async lost() {
        const { json } = await ask(`api/platforms/${this.id}/revisions`)
        const stored = new Map(json.map((each) => [each.number, each.title]))
        const lost = [...this.acknowledged].filter(([revision, title]) => stored.get(revision) !== title)
        this.acknowledged.clear()
        return lost
    }
}

function kill(name, pid) {
    try {
        process.kill(pid, 'SIGKILL')
        return name
    } catch {
        return `${name} (was down)`
    }
}

const numberIn = (file) => Number(readFileSync(join(state, file), 'utf8').split(/\s/)[0])
const databaseNumber = () =>
    Number(execFileSync('head', ['-n', '1', join(state, 'database/cluster/postmaster.pid')], { encoding: 'utf8' }))

async function ready(limitMillis) {
    const began = Date.now()
    while (Date.now() - began < limitMillis) {
        try {
            if ((await ask('actuator/health/readiness')).status === 200) {
                return Date.now() - began
            }
        } catch {
            // not yet
        }
        await sleep(100)
    }
    throw new Error('does not come back')
}

async function main() {
    url = (await run('start')).split('\n').at(-1)
    const writers = []
    while (writers.length < platforms) {
        const { json } = await ask('api/platforms', { name: 'Killed', board: 'polymetron:boards:foreland:1.0' })
        writers.push(new Writer(json.id))
    }
    const times = []
    let lost = 0
    for (let round = 1; round <= rounds; round++) {
        let over = false
        const writing = writers.map((each) => each.write(() => over))
        await sleep(300 + random(3000))
        const killed = []
        const what = random(4)
        if (what !== 1) killed.push(kill('application', numberIn('application.process')))
        if (what !== 0) killed.push(kill('database', databaseNumber()))
        await sleep(300)
        times.push(await ready(120_000))
        over = true
        await Promise.all(writing)
        const missing = (await Promise.all(writers.map((each) => each.lost()))).flat()
        lost += missing.length
        const edits = writers.reduce((sum, each) => sum + each.total, 0)
        console.log(
            `round ${round}: killed ${killed.join(' and ')}, ready after ${(times.at(-1) / 1000).toFixed(1)} s; ` +
                `${edits} edits acknowledged, ${missing.length} lost`,
        )
        if (missing.length) {
            console.log(missing.slice(0, 5))
        }
    }
    for (const each of writers) {
        const { json } = await ask(`api/platforms/${each.id}`)
        if (json.revision < each.newest) {
            lost++
            console.log(`platform ${each.id} is at revision ${json.revision}, acknowledged was ${each.newest}`)
        }
    }
    times.sort((one, other) => one - other)
    const edits = writers.reduce((sum, each) => sum + each.total, 0)
    const at = (part) => (times[Math.min(times.length - 1, Math.floor(part * times.length))] / 1000).toFixed(1)
    console.log(
        `${rounds} rounds, ${edits} edits acknowledged, ${lost} lost; ` +
            `ready again after ${at(0.5)} s (median), ${at(0.95)} s (19 of 20), ${at(1)} s (longest)`,
    )
    return lost
}

let code = 1
try {
    code = (await main()) ? 1 : 0
} catch (failure) {
    console.error(failure)
} finally {
    await run('stop').catch((failure) => console.error(failure.message))
    rmSync(state, { recursive: true, force: true })
}
process.exit(code)
