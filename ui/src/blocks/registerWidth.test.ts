import { describe, expect, it } from 'vitest'
import type { Register } from './ownBlock'
import { choose, WIDTHS, widthOf } from './registerWidth'

describe('the width of a register', () => {
    it('says whether its two words are one', () => {
        const register: Register = { name: 'TIME', explains: '', fields: [] }
        expect(widthOf(register)).toBe('32')
        for (const width of WIDTHS) {
            register.width = choose(register, width)
            expect(widthOf(register)).toBe(width)
        }
        expect(register).toMatchObject({ width: 64, whole: true })
    })

    it('is not whole with any other', () => {
        const register: Register = { name: 'TIME', explains: '', fields: [], width: 64, whole: true }
        expect(choose(register, '64')).toBe(64)
        expect('whole' in register).toBe(false)
        register.whole = true
        expect(choose(register, '16')).toBe(16)
        expect('whole' in register).toBe(false)
    })
})
