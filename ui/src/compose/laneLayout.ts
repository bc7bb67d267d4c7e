import type { StreamView } from '../api/client'

/** Where a block stands in the picture of the streams. */
export interface LaneNode {
    name: string
    column: number
    row: number
}

/** A stream between two nodes, or from a node to nowhere, or from nowhere to a node. */
export interface LaneEdge {
    from: LaneNode | undefined
    to: LaneNode | undefined
    stream: StreamView | undefined
    /** Open sink, as block.name, where there is no stream yet. */
    sink?: string
}

export interface Lane {
    nodes: LaneNode[]
    edges: LaneEdge[]
    columns: number
    rows: number
}

/**
 * Streams from left to right: one lane for each set of blocks that are connected. A block stands a column behind the
 * last of those that feed it; the first sink of a source goes on in its row, the others open rows of their own. The
 * order is that of the streams, so that a new one moves as little as possible.
 *
 * @param openSinks sinks without a source, as block.name
 * @param nameOf what a block is drawn as: itself, or the folded group that it is in
 */
export function layOutLanes(
    streams: StreamView[],
    openSinks: string[],
    nameOf: (block: string) => string,
): Lane[] {
    const joined = streams.filter((each) => each.sinkBlock && nameOf(each.block) !== nameOf(each.sinkBlock))
    const names: string[] = []
    const note = (block: string): void => {
        const name = nameOf(block)
        if (!names.includes(name)) {
            names.push(name)
        }
    }
    streams.forEach((each) => {
        note(each.block)
        if (each.sinkBlock) {
            note(each.sinkBlock)
        }
    })
    openSinks.forEach((sink) => note(blockOf(sink)))
    const next = (name: string): string[] => [
        ...new Set(
            joined.filter((each) => nameOf(each.block) === name).map((each) => nameOf(each.sinkBlock ?? '')),
        ),
    ]
    const fed = new Set(joined.map((each) => nameOf(each.sinkBlock ?? '')))
    const columns = columnsOf(names, next)
    const lanes: Lane[] = []
    const placed = new Map<string, LaneNode>()
    for (const root of [...names.filter((name) => !fed.has(name)), ...names]) {
        if (placed.has(root)) {
            continue
        }
        const lane = laneOf(root, joined, nameOf)
        const nodes: LaneNode[] = []
        let rows = 0
        const place = (name: string, row: number): void => {
            if (placed.has(name)) {
                return
            }
            const column = columns.get(name) ?? 0
            const taken = nodes.some((node) => node.row === row && node.column >= column)
            const node = { name, column, row: taken ? rows : row }
            rows = Math.max(rows, node.row + 1)
            placed.set(name, node)
            nodes.push(node)
            next(name).forEach((each, at) => {
                place(each, at === 0 ? node.row : rows)
            })
        }
        names
            .filter((name) => lane.has(name) && !fed.has(name))
            .forEach((name) => {
                place(name, rows)
            })
        names
            .filter((name) => lane.has(name))
            .forEach((name) => {
                place(name, rows)
            })
        lanes.push({
            nodes,
            edges: edgesOf(streams, openSinks, nameOf, lane, placed),
            columns: Math.max(...nodes.map((node) => node.column)) + 1,
            rows,
        })
    }
    return lanes
}

export function blockOf(ref: string): string {
    return ref.slice(0, ref.indexOf('.'))
}

/** Longest way from a block without a source; a loop is cut where it is met again. */
function columnsOf(names: string[], next: (name: string) => string[]): Map<string, number> {
    const columns = new Map<string, number>(names.map((name) => [name, 0]))
    const walk = (name: string, column: number, path: Set<string>): void => {
        if (path.has(name) || (column > 0 && (columns.get(name) ?? 0) >= column)) {
            return
        }
        columns.set(name, column)
        next(name).forEach((each) => {
            walk(each, column + 1, new Set([...path, name]))
        })
    }
    const reached = new Set(names.flatMap(next))
    names
        .filter((name) => !reached.has(name))
        .forEach((name) => {
            walk(name, 0, new Set())
        })
    names
        .filter((name) => columns.get(name) === 0 && reached.has(name))
        .forEach((name) => {
            walk(name, 0, new Set())
        })
    return columns
}

/** Everything that is connected with a block, up and down the streams. */
function laneOf(root: string, joined: StreamView[], nameOf: (block: string) => string): Set<string> {
    const lane = new Set<string>()
    const waiting = [root]
    for (let name = waiting.pop(); name !== undefined; name = waiting.pop()) {
        if (lane.has(name)) {
            continue
        }
        lane.add(name)
        for (const each of joined) {
            const from = nameOf(each.block)
            const to = nameOf(each.sinkBlock ?? '')
            if (from === name) {
                waiting.push(to)
            } else if (to === name) {
                waiting.push(from)
            }
        }
    }
    return lane
}

function edgesOf(
    streams: StreamView[],
    openSinks: string[],
    nameOf: (block: string) => string,
    lane: Set<string>,
    placed: Map<string, LaneNode>,
): LaneEdge[] {
    const edges: LaneEdge[] = []
    for (const stream of streams) {
        const from = nameOf(stream.block)
        const to = stream.sinkBlock ? nameOf(stream.sinkBlock) : undefined
        if (lane.has(from) && from !== to) {
            edges.push({ from: placed.get(from), to: to ? placed.get(to) : undefined, stream })
        }
    }
    for (const sink of openSinks) {
        const name = nameOf(blockOf(sink))
        if (lane.has(name)) {
            edges.push({ from: undefined, to: placed.get(name), stream: undefined, sink })
        }
    }
    return edges
}
