import createClient from 'openapi-fetch'
import { authorHeader } from './author'
import type { components, paths } from './generated/schema'

type Schemas = components['schemas']
export type PlatformView = Schemas['PlatformView']
export type PlatformSummary = Schemas['PlatformSummary']
export type BlockView = Schemas['BlockView']
export type BusView = Schemas['BusView']
export type SlotView = Schemas['SlotView']
export type TargetView = Schemas['TargetView']
export type InitiatorView = Schemas['InitiatorView']
export type FindingView = Schemas['FindingView']
export type ValueView = Schemas['ValueView']
export type BlockSheet = Schemas['BlockSheet']
export type StreamEndView = Schemas['StreamEndView']
export type StreamView = Schemas['StreamView']
export type GroupView = Schemas['GroupView']
export type ClocksView = Schemas['ClocksView']
export type WishPlanView = Schemas['WishPlanView']
export type InterruptsView = Schemas['InterruptsView']
export type InterruptPortView = Schemas['InterruptPortView']
export type SourceView = Schemas['SourceView']
export type RevisionView = Schemas['RevisionView']
export type PinsView = Schemas['PinsView']
export type PinLineView = Schemas['PinLineView']
export type PinPlanView = Schemas['PinPlanView']
export type PinImportView = Schemas['PinImportView']
export type FitView = Schemas['FitView']
export type AddressesView = Schemas['AddressesView']
export type OfferView = Schemas['OfferView']
export type DeviceChoice = Schemas['DeviceChoice']
export type InterruptView = Schemas['InterruptView']
export type OutwardView = Schemas['OutwardView']
export type InterfaceView = Schemas['InterfaceView']
export type LibraryView = Schemas['LibraryView']
export type PlanView = Schemas['PlanView']
export type PlanRequest = Schemas['PlanRequest']
export type PlacesView = Schemas['PlacesView']
export type FoundView = Schemas['FoundView']
export type FindingGroupView = Schemas['FindingGroupView']
export type BenchView = Schemas['BenchView']
export type StateView = Schemas['StateView']
export type ImageView = Schemas['ImageView']
export type DomainDetails = Schemas['DomainDetails']
export type BoardChangeView = Schemas['BoardChangeView']
export type ConsequenceView = Schemas['ConsequenceView']
export type HdlFoundView = Schemas['HdlFound']
export type BlockLook = Schemas['BlockLook']
export type CompiledView = Schemas['CompiledView']
export type SelfTestView = Schemas['SelfTestView']
export type BlockSizeView = Schemas['BlockSizeView']
export type BlockTestsView = Schemas['BlockTestsView']
export type EditRequest = Schemas['EditRequest']

/** An edit as the API takes it; the server checks the rest. */
export type Edit = { edit: string; [key: string]: unknown }

export const client = createClient<paths>({ baseUrl: '/' })

client.use({
    onRequest({ request }) {
        for (const [name, value] of Object.entries(authorHeader())) {
            request.headers.set(name, value)
        }
        return request
    },
})

/** What the server says when it refuses (RFC 9457). */
export class Refusal extends Error {
    constructor(
        readonly status: number,
        readonly title: string,
        detail: string,
        readonly field?: string,
    ) {
        super(detail)
    }
}

function refusal(status: number, problem: unknown): Refusal {
    const document = (problem ?? {}) as { title?: string; detail?: string; field?: string }
    return new Refusal(
        status,
        document.title ?? 'The server refused',
        document.detail ?? `It answered with status ${status}.`,
        document.field,
    )
}

/** The data of an answer, or the refusal as an error. */
export async function answer<T>(
    call: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<NonNullable<T>> {
    let result
    try {
        result = await call
    } catch {
        throw new Refusal(0, 'No connection', 'The server cannot be reached; try again.')
    }
    if (result.error !== undefined || !result.response.ok) {
        throw refusal(result.response.status, result.error)
    }
    return result.data as NonNullable<T>
}

/** Sends a file as it is. */
export async function upload<T>(path: string, file: Blob, signal?: AbortSignal): Promise<T> {
    let response: Response
    try {
        response = await fetch(path, {
            method: 'POST',
            body: file,
            headers: { 'Content-Type': 'application/octet-stream', ...authorHeader() },
            ...(signal ? { signal } : {}),
        })
    } catch {
        throw new Refusal(
            0,
            'Not sent',
            'The file could not be sent. It may be too large, or the server cannot be reached.',
        )
    }
    const body: unknown = await response.json().catch(() => undefined)
    if (!response.ok) {
        throw refusal(response.status, body)
    }
    return body as T
}
