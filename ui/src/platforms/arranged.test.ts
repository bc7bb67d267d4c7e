import { describe, expect, it } from 'vitest'
import type { PlatformSummary } from '../api/client'
import { arranged, type Column } from './arranged'

function platform(name: string, board: string, blocks: number, errors: number, day: number): PlatformSummary {
    return {
        id: name,
        name,
        board,
        blocks,
        errors,
        warnings: 0,
        revision: 1,
        savedAt: `2026-11-0${day}T00:00:00Z`,
    } as PlatformSummary
}

const ALL = [
    platform('Station 10', 'Terrace', 3, 0, 3),
    platform('station 2', 'Sluice', 12, 2, 1),
    platform('Lock', 'Sluice', 3, 1, 2),
]

function names(find: string, by: Column, descends = false): string[] {
    return arranged(ALL, find, { by, descends }).map((each) => each.name)
}

describe('platforms', () => {
    it('are found by all words of name and board', () => {
        expect(names('', 'name')).toEqual(['Lock', 'station 2', 'Station 10'])
        expect(names('  STATION sluice ', 'name')).toEqual(['station 2'])
        expect(names('terrace lock', 'name')).toEqual([])
    })

    it('are sorted by each column both ways, equal ones by name', () => {
        expect(names('', 'name', true)).toEqual(['Station 10', 'station 2', 'Lock'])
        expect(names('', 'blocks')).toEqual(['Lock', 'Station 10', 'station 2'])
        expect(names('', 'blocks', true)).toEqual(['station 2', 'Lock', 'Station 10'])
        expect(names('', 'board')).toEqual(['Lock', 'station 2', 'Station 10'])
        expect(names('', 'state', true)).toEqual(['station 2', 'Lock', 'Station 10'])
        expect(names('', 'changed', true)).toEqual(['Station 10', 'Lock', 'station 2'])
    })

    it('stay as they were where they came from', () => {
        names('', 'changed')
        expect(ALL[0]?.name).toBe('Station 10')
    })
})
