import { describe, expect, it } from 'vitest'
import { pieces } from './verilog'

describe('pieces', () => {
    it('names what a line is made of', () => {
        expect(pieces("wire [31:0] a = 32'h0000_00ff; // low")).toEqual([
            { kind: 'keyword', text: 'wire' },
            { kind: 'plain', text: ' [' },
            { kind: 'number', text: '31' },
            { kind: 'plain', text: ':' },
            { kind: 'number', text: '0' },
            { kind: 'plain', text: '] a = ' },
            { kind: 'number', text: "32'h0000_00ff" },
            { kind: 'plain', text: '; ' },
            { kind: 'comment', text: '// low' },
        ])
        expect(pieces('`default_nettype none')[0]).toEqual({ kind: 'directive', text: '`default_nettype' })
        expect(pieces('$display("a // b");')[1]).toEqual({ kind: 'text', text: '"a // b"' })
    })

    it('loses nothing', () => {
        const signs = ['a', 'wire', ' ', "'", '"', '/', '//', '`x', '12', "8'hFF", '\\', '(', '%', 'é']
        for (let round = 0; round < 500; round++) {
            const line = Array.from(
                { length: round % 13 },
                (_, at) => signs[(round * 7 + at * at * 5) % signs.length],
            )
            expect(
                pieces(line.join(''))
                    .map((each) => each.text)
                    .join(''),
            ).toBe(line.join(''))
        }
    })
})
