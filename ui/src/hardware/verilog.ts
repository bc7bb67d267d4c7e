/** What a piece of Verilog is, for its colour. */
export type Kind = 'comment' | 'directive' | 'keyword' | 'number' | 'text' | 'plain'

export interface Piece {
    kind: Kind
    text: string
}

const KEYWORDS = new Set(
    (
        'always assign begin case default else end endcase endfunction endgenerate endmodule endtask for forever' +
        ' function generate genvar if initial inout input integer localparam module negedge or output parameter' +
        ' posedge reg repeat task wait while wire'
    ).split(' '),
)

const PIECES =
    /(\/\/.*)|(`\w+)|("(?:\\.|[^"\\])*")|(\d*'[bodh][0-9a-fA-FxzXZ_]+|\b\d+\b)|([A-Za-z_$][\w$]*)|([^A-Za-z_$\d"`/]+|.)/g

/** A line of Verilog in pieces; together they are the line. */
export function pieces(line: string): Piece[] {
    const found: Piece[] = []
    for (const match of line.matchAll(PIECES)) {
        const [text, comment, directive, quoted, number, word] = match
        const kind: Kind = comment
            ? 'comment'
            : directive
              ? 'directive'
              : quoted
                ? 'text'
                : number
                  ? 'number'
                  : word && KEYWORDS.has(word)
                    ? 'keyword'
                    : 'plain'
        const last = found[found.length - 1]
        if (last && last.kind === kind) {
            last.text += text
        } else {
            found.push({ kind, text })
        }
    }
    return found
}
