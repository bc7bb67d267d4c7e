/** Okabe and Ito's colours, which people with any colour vision can tell apart; the name always stands beside. */
const COLOURS = ['#56b4e9', '#e69f00', '#009e73', '#cc79a7', '#0072b2', '#d55e00', '#f0e442']

/** The colour of a clock domain by its place in the platform; grey for none. */
export function domainColour(index: number): string {
    return index < 0 ? '#888888' : (COLOURS[index % COLOURS.length] ?? '#888888')
}
