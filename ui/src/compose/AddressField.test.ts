import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import AddressField from './AddressField.vue'

const field = (more: Record<string, unknown> = {}) =>
    mount(AddressField, { props: { label: 'base', value: '0x1000_0000', ...more } })

describe('AddressField', () => {
    it('tells of a new value once, on Enter or when it is left', async () => {
        const wrapper = field()
        const input = wrapper.get('input')
        await input.setValue(' 0x2000_0000 ')
        await input.trigger('keydown', { key: 'Enter' })
        expect(wrapper.emitted('change')).toEqual([['0x2000_0000']])
        await wrapper.setProps({ value: '0x2000_0000' })
        await input.trigger('blur')
        expect(wrapper.emitted('change')).toHaveLength(1)
    })

    it('goes back to the value on Escape, and when it was emptied', async () => {
        const wrapper = field()
        const input = wrapper.get('input')
        await input.setValue('0x3')
        await input.trigger('keydown', { key: 'Escape' })
        expect(input.element.value).toBe('0x1000_0000')
        await input.setValue('')
        await input.trigger('blur')
        expect(input.element.value).toBe('0x1000_0000')
        expect(wrapper.emitted('change')).toBeUndefined()
    })

    it('keeps what is being typed when the value changes by itself', async () => {
        const wrapper = field()
        const input = wrapper.get('input')
        await input.trigger('focus')
        await input.setValue('0x12')
        await wrapper.setProps({ value: '0x9999_0000' })
        expect(input.element.value).toBe('0x12')
        await input.trigger('keydown', { key: 'Escape' })
        await input.trigger('blur')
        expect(input.element.value).toBe('0x9999_0000')
    })

    it('writes a register only on Enter, the same value again as well', async () => {
        const wrapper = field({ onlyOnEnter: true })
        const input = wrapper.get('input')
        await input.setValue('0x41')
        await input.trigger('blur')
        expect(wrapper.emitted('change')).toBeUndefined()
        await input.trigger('keydown', { key: 'Enter' })
        expect(wrapper.emitted('change')).toEqual([['0x1000_0000']])
    })
})
