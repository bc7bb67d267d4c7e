/** What a person calls each bus protocol; the server decides what is allowed. */
export const PROTOCOLS: Record<string, string> = {
    axi4: 'AXI4',
    'axi4-lite': 'AXI4-Lite',
    'ahb-lite': 'AHB-Lite',
    apb: 'APB',
    'wishbone-b4': 'Wishbone B4',
}

/** Data widths offered for each protocol, in bits. */
export const DATA_WIDTHS: Record<string, number[]> = {
    axi4: [32, 64, 128, 256, 512, 1024],
    'axi4-lite': [32, 64],
    'ahb-lite': [32, 64, 128, 256, 512, 1024],
    apb: [32],
    'wishbone-b4': [32, 64],
}
