import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import AddressField from './AddressField.vue'

function field(more: Record<string, unknown> = {}) {
    const write = vi.fn((text: string) => Promise.resolve(text !== 'refused'))
    const wrapper = mount(AddressField, { props: { label: 'base', value: '0x1000_0000', write, ...more } })
    return { wrapper, write, input: wrapper.get('input') }
}

describe('AddressField', () => {
    it('writes a new value once: on Enter, and not again when it is left', async () => {
        let finish: (done: boolean) => void = () => undefined
        const write = vi.fn(() => new Promise<boolean>((resolve) => (finish = resolve)))
        const { wrapper, input } = field({ write })
        await input.trigger('focus')
        await input.setValue(' 0x2000_0000 ')
        await input.trigger('keydown', { key: 'Enter' })
        await input.trigger('blur')
        expect(write.mock.calls).toEqual([['0x2000_0000']])
        await wrapper.setProps({ value: '0x2000_0000' })
        finish(true)
        await flushPromises()
        await input.trigger('blur')
        expect(write).toHaveBeenCalledTimes(1)
        expect(input.element.value).toBe('0x2000_0000')
    })

    it('keeps what was accepted until the new value is there, and writes it once', async () => {
        const { wrapper, write, input } = field()
        await input.trigger('focus')
        await input.setValue('64K')
        await input.trigger('keydown', { key: 'Enter' })
        await flushPromises()
        await input.trigger('blur')
        expect(input.element.value).toBe('64K')
        await wrapper.setProps({ value: '0x0001_0000' })
        expect(input.element.value).toBe('0x0001_0000')
        await input.trigger('blur')
        expect(write).toHaveBeenCalledTimes(1)
    })

    it('is not confused when the answer to an earlier value comes after a later one', async () => {
        const { wrapper, write, input } = field({ value: '16K' })
        await input.trigger('focus')
        for (const typed of ['64K', '32K']) {
            await input.setValue(typed)
            await input.trigger('keydown', { key: 'Enter' })
            await flushPromises()
        }
        await wrapper.setProps({ value: '64K' })
        await wrapper.setProps({ value: '32K' })
        expect(input.element.value).toBe('32K')
        await input.trigger('blur')
        expect(write.mock.calls).toEqual([['64K'], ['32K']])
    })

    it('takes back what was accepted but does not show yet', async () => {
        const { write, input } = field({ value: '16K' })
        await input.trigger('focus')
        for (const typed of ['64K', '16K']) {
            await input.setValue(typed)
            await input.trigger('keydown', { key: 'Enter' })
            await flushPromises()
        }
        expect(write.mock.calls).toEqual([['64K'], ['16K']])
    })

    it('goes back to the value on Escape, when it was emptied, and when it was refused', async () => {
        const { write, input } = field()
        await input.setValue('0x3')
        await input.trigger('keydown', { key: 'Escape' })
        expect(input.element.value).toBe('0x1000_0000')
        await input.setValue('')
        await input.trigger('blur')
        expect(input.element.value).toBe('0x1000_0000')
        expect(write).not.toHaveBeenCalled()
        await input.setValue('refused')
        await input.trigger('blur')
        await flushPromises()
        expect(input.element.value).toBe('0x1000_0000')
    })

    it('keeps what was refused, with the reason, until it is corrected or taken back', async () => {
        const write = vi.fn((text: string) => Promise.resolve(text === '0x20' || 'no such address'))
        const { wrapper, input } = field({ write })
        await input.trigger('focus')
        await input.setValue('0x2O')
        await input.trigger('keydown', { key: 'Enter' })
        await flushPromises()
        await input.trigger('blur')
        expect(input.element.value).toBe('0x2O')
        expect(input.attributes('aria-invalid')).toBe('true')
        expect(wrapper.get('[role=alert]').text()).toBe('no such address')
        expect(wrapper.get(`#${input.attributes('aria-describedby') ?? ''}`).text()).toBe('no such address')
        expect(write).toHaveBeenCalledTimes(1)
        await input.setValue('0x20')
        expect(wrapper.find('[role=alert]').exists()).toBe(false)
        await input.trigger('keydown', { key: 'Enter' })
        await flushPromises()
        expect(input.element.value).toBe('0x20')
        await input.setValue('nonsense')
        await input.trigger('keydown', { key: 'Enter' })
        await flushPromises()
        await input.trigger('keydown', { key: 'Escape' })
        expect(input.element.value).toBe('0x20')
        expect(wrapper.find('[role=alert]').exists()).toBe(false)
    })

    it('keeps what is being typed when the value changes by itself', async () => {
        const { wrapper, input } = field()
        await input.trigger('focus')
        await input.setValue('0x12')
        await wrapper.setProps({ value: '0x9999_0000' })
        expect(input.element.value).toBe('0x12')
        await input.trigger('keydown', { key: 'Escape' })
        await input.trigger('blur')
        expect(input.element.value).toBe('0x9999_0000')
    })

    it('writes a register only on Enter, the same value again as well', async () => {
        const { write, input } = field({ onlyOnEnter: true })
        await input.setValue('0x41')
        await input.trigger('blur')
        expect(write).not.toHaveBeenCalled()
        await input.trigger('keydown', { key: 'Enter' })
        expect(write.mock.calls).toEqual([['0x1000_0000']])
    })

    it('asks before digits without a prefix become decimal, once', async () => {
        const { wrapper, write, input } = field({ address: true })
        await input.setValue('20000000')
        await input.trigger('keydown', { key: 'Enter' })
        await flushPromises()
        expect(write).not.toHaveBeenCalled()
        expect(wrapper.text()).toContain('write 0x2000_0000')
        await input.trigger('keydown', { key: 'Enter' })
        expect(write.mock.calls).toEqual([['20000000']])
    })
})
