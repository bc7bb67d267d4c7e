import { answer, client } from '../api/client'
import type { Question } from './answersFor'
import type { Entry } from './search'

const SHORTEST = 2

/** What only the server can find in a platform: what is at an address, parameters with their values, registers. */
export function serverSearch(id: string, show: (block: string) => void): Question<Entry>[] {
    const path = { id }
    return [
        (address) => (/^0x[0-9a-f_]+$/i.test(address) ? at(address) : undefined),
        (text) => (text.length < SHORTEST ? undefined : parameters(text)),
        (text) => (text.length < SHORTEST ? undefined : registers(text)),
    ]

    async function at(address: string): Promise<Entry[]> {
        const found = await answer(
            client.GET('/api/platforms/{id}/at', { params: { path, query: { address } } }),
        )
        return found.places.map((place) => ({
            key: `at ${place.initiator}`,
            title: place.block
                ? `${place.block} ${place.registers.join(', ')} ${place.registers.length ? '' : (place.offset ?? '')}`
                : 'nothing answers here',
            detail: `${found.address} · ${place.label}`,
            kind: 'address',
            run: () => place.block && show(place.block.split('.')[0] ?? place.block),
        }))
    }

    async function parameters(text: string): Promise<Entry[]> {
        const found = await answer(
            client.GET('/api/platforms/{id}/parameters', { params: { path, query: { text } } }),
        )
        return found.map((each) => ({
            key: `parameter ${each.block} ${each.name}`,
            title: `${each.block}, ${each.title}`,
            detail: each.shown,
            kind: 'parameter',
            run: () => {
                show(each.block)
            },
        }))
    }

    async function registers(text: string): Promise<Entry[]> {
        const found = await answer(
            client.GET('/api/platforms/{id}/registers', { params: { path, query: { text } } }),
        )
        return found.map((register) => ({
            key: `register ${register.block} ${register.name}`,
            title: `${register.block}.${register.name}`,
            detail: register.address ?? '',
            kind: 'register',
            run: () => {
                show(register.block)
            },
        }))
    }
}
