import { describe, expect, it } from 'vitest'
import type { RevisionView } from '../api/client'
import { foldedRevisions } from './foldedRevisions'

const revision = (number: number, repeats?: number, name?: string): RevisionView => ({
    number,
    title: '',
    madeAt: '',
    repeats,
    name,
})
const lines = (revisions: RevisionView[]): number[][] =>
    foldedRevisions(revisions).map((line) => [line.revision, ...line.folded].map((each) => each.number))

describe('the history', () => {
    it('has undos and redos in a row as one line', () => {
        expect(
            lines([revision(6), revision(5, 3), revision(4, 2), revision(3), revision(2, 1), revision(1)]),
        ).toEqual([[6], [5, 4], [3], [2], [1]])
    })

    it('never folds a revision with a name', () => {
        expect(lines([revision(4, 2), revision(3, 1, 'handed over'), revision(2, 1), revision(1)])).toEqual([
            [4],
            [3],
            [2],
            [1],
        ])
    })
})
