import type { RevisionView } from '../api/client'

/** A line of the history: a change, or several undos and redos in a row that are one step to and fro. */
export interface RevisionLine {
    revision: RevisionView
    /** Undos and redos behind it, newest first; the line shows the newest. */
    folded: RevisionView[]
}

/** Revisions with neighbouring undos and redos as one line; one with a name stays a line of its own. */
export function foldedRevisions(revisions: RevisionView[]): RevisionLine[] {
    const lines: RevisionLine[] = []
    for (const revision of revisions) {
        const last = lines[lines.length - 1]
        const folds = revision.repeats != null && !revision.name
        if (folds && last && last.revision.repeats != null && !last.revision.name) {
            last.folded.push(revision)
        } else {
            lines.push({ revision, folded: [] })
        }
    }
    return lines
}
