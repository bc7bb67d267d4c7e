/** A time as year-month-day hour:minute in the reader's own time zone. */
export function localTime(instant: string): string {
    const at = new Date(instant)
    const two = (value: number): string => String(value).padStart(2, '0')
    return (
        `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())} ` +
        `${two(at.getHours())}:${two(at.getMinutes())}`
    )
}
