/** Colour of the words of a finding. The word of the grade always stands beside it. */
export function gradeText(grade: string, accepted?: unknown): string {
    if (accepted) {
        return 'text-soft'
    }
    return grade === 'error' ? 'text-error' : grade === 'warning' ? 'text-warn' : 'text-soft'
}

/** Edge of what a finding is about. A note is no reason for alarm, so it leaves no mark. */
export function gradeBorder(grade: string | undefined): string {
    return grade === 'error' ? 'border-error' : grade === 'warning' ? 'border-warn' : 'border-line'
}
