/** A message of the core as a sentence: it begins small and ends open, so that it can stand in a longer one. */
export function sentence(message: string): string {
    return `${message.slice(0, 1).toUpperCase()}${message.slice(1)}.`
}
