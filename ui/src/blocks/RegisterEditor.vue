<script setup lang="ts">
import { ref } from 'vue'
import { upload } from '../api/client'
import { tell, tellProblem } from '../frame/notices'
import {
    ACCESSES,
    accessOf,
    bitsText,
    formula,
    HARDWARE,
    setAccess,
    setBits,
    type Field,
    type Register,
} from './ownBlock'
import { fileOf, followsFile, joinFile, layAgain, leaveFile } from './registerFile'
import { choose, WIDTHS, widthOf } from './registerWidth'
import { vTyped } from '../frame/typedText'

const registers = defineModel<Register[]>({ required: true })
const props = defineProps<{
    /** Offsets by the names of registers, as they are assigned where none is written. */
    offsets: Map<string, number>
    /** Bits by register and field, likewise. */
    places: Map<string, string>
    wrong: (at: string) => string
}>()

const table = ref<HTMLTableElement>()
const hex = (value: number | undefined): string =>
    value === undefined ? '' : `0x${value.toString(16).toUpperCase().padStart(2, '0')}`

function fresh(stem: string, taken: string[]): string {
    let number = taken.length
    while (taken.includes(`${stem}${number}`)) {
        number++
    }
    return `${stem}${number}`
}

function field(register: Register): Field {
    return {
        name: fresh(
            'FIELD',
            register.fields.map((each) => each.name),
        ),
        software: 'read-write',
        explains: '',
    }
}

/** Focus goes to the first cell of what is new, with its text selected. */
function focus(key: string): void {
    window.setTimeout(() => {
        const cell = table.value?.querySelector<HTMLInputElement>(`[data-cell="${key}"]`)
        cell?.focus()
        cell?.select()
    })
}

function addRegister(at: number): void {
    const register: Register = {
        name: fresh(
            'REGISTER',
            registers.value.map((each) => each.name),
        ),
        explains: '',
        fields: [],
    }
    register.fields.push(field(register))
    registers.value.splice(at, 0, register)
    focus(`${at}`)
}

function addField(at: number, index: number): void {
    const register = registers.value[at]
    if (register) {
        register.fields.splice(index, 0, field(register))
        focus(`${at}.${index}`)
    }
}

function move(at: number, index: number | undefined, by: number): void {
    const list: unknown[] = index === undefined ? registers.value : (registers.value[at]?.fields ?? [])
    const from = index ?? at
    const to = from + by
    if (to >= 0 && to < list.length) {
        list.splice(to, 0, ...list.splice(from, 1))
        focus(index === undefined ? `${to}` : `${at}.${to}`)
    }
}

/** Enter goes on below, Ctrl+Enter begins a register, Alt with an arrow moves the row. */
function key(event: KeyboardEvent, at: number, index?: number): void {
    if (event.key === 'Enter' && event.ctrlKey) {
        addRegister(at + 1)
    } else if (event.key === 'Enter') {
        addField(at, index === undefined ? 0 : index + 1)
    } else if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
        move(at, index, event.key === 'ArrowUp' ? -1 : 1)
    } else {
        return
    }
    event.preventDefault()
}

function bits(each: Field, event: Event): void {
    const input = event.target as HTMLInputElement
    const isValid = setBits(each, input.value)
    input.setCustomValidity(isValid ? '' : 'write 7:0, 3, +4 for the next four, or 0+WIDTH')
    input.reportValidity()
}

function set(target: Register | Field, name: string, text: string): void {
    const value = formula(text)
    if (value === undefined) {
        Reflect.deleteProperty(target, name)
    } else {
        Object.assign(target, { [name]: value })
    }
}

/** Count and width are those of the whole file that a register is in. */
function setOfFile(at: number, name: 'count' | 'width', text: string): void {
    const register = registers.value[at]
    const file = fileOf(registers.value, at)
    if (register) {
        set(register, name, text)
        layAgain(registers.value, at, file)
    }
}

function setWidth(at: number, chosen: string): void {
    const register = registers.value[at]
    if (register) {
        setOfFile(at, 'width', String(choose(register, chosen)))
    }
}

function join(at: number, event: Event): void {
    const box = event.target as HTMLInputElement
    if (!box.checked) {
        leaveFile(registers.value, at)
        return
    }
    const first = fileOf(registers.value, at - 1)?.first ?? at - 1
    const head = registers.value[first]
    if (!joinFile(registers.value, at, head && props.offsets.get(head.name))) {
        box.checked = false
        tell(
            'problem',
            'No register file',
            'The offset of the register above is a formula; write a number there first.',
        )
    }
}

function hardware(each: Field, value: string): void {
    if (value) {
        each.hardware = value
    } else {
        delete each.hardware
    }
}

/** Several cells from elsewhere are rows; a single word goes into the cell that it is pasted into. */
async function paste(event: ClipboardEvent): Promise<void> {
    const text = event.clipboardData?.getData('text/plain') ?? ''
    if (!/[\t\n]/.test(text.trim())) {
        return
    }
    event.preventDefault()
    await take(text)
}

async function chosen(event: Event): Promise<void> {
    const input = event.target as HTMLInputElement
    const file = input.files?.[0]
    if (file) {
        await take(await file.text())
    }
    input.value = ''
}

/** Adds registers out of a table, or of a description in XML. */
async function take(text: string): Promise<void> {
    try {
        const read = await upload<Register[]>('/api/library/blocks/registers', new Blob([text]))
        const known = new Set(registers.value.map((each) => each.name))
        const added = read.filter((each) => !known.has(each.name))
        registers.value.push(...added)
        tell(
            'done',
            `${added.length} ${added.length === 1 ? 'register' : 'registers'} added`,
            added.length === read.length ? '' : 'Those whose names were there already are left as they were.',
        )
    } catch (problem) {
        tellProblem(problem)
    }
}

const value = (event: Event): string => (event.target as HTMLInputElement).value
</script>

<template>
    <div>
        <table ref="table" class="w-full border-collapse" aria-label="Registers" @paste="paste">
            <thead>
                <tr class="table-head">
                    <th scope="col" class="py-1">register, field</th>
                    <th scope="col">offset, bits</th>
                    <th scope="col">software</th>
                    <th scope="col">the block</th>
                    <th scope="col">reset</th>
                    <th scope="col">meaning</th>
                    <th scope="col"><span class="sr-only">actions</span></th>
                </tr>
            </thead>
            <tbody v-for="(register, at) in registers" :key="at">
                <tr class="bg-sunken" @keydown="key($event, at)">
                    <td class="w-[170px] p-0.5">
                        <input
                            v-model.trim="register.name"
                            class="input w-full font-mono font-semibold"
                            :data-cell="`${at}`"
                            :aria-label="`Name of register ${at}`"
                        />
                    </td>
                    <td class="w-[92px] p-0.5">
                        <input
                            v-typed="register.offset ?? ''"
                            class="input w-full font-mono"
                            :placeholder="hex(offsets.get(register.name))"
                            :aria-label="`Offset of ${register.name}`"
                            title="Empty: behind the register above"
                            @change="set(register, 'offset', value($event))"
                        />
                    </td>
                    <td class="p-0.5" colspan="3">
                        <label class="text-[13px] text-soft">
                            rows
                            <input
                                v-typed="register.count ?? ''"
                                class="input ml-1 w-11 font-mono"
                                placeholder="1"
                                :aria-label="`Rows of ${register.name}`"
                                @change="setOfFile(at, 'count', value($event))"
                            />
                        </label>
                        <label class="ml-2 text-[13px] text-soft">
                            bits
                            <select
                                class="input ml-1 !px-1.5"
                                :value="widthOf(register)"
                                :aria-label="`Width of ${register.name}`"
                                title="64 whole: its two words are read, and written, at one time"
                                @change="setWidth(at, value($event))"
                            >
                                <option v-for="width in WIDTHS" :key="width">{{ width }}</option>
                            </select>
                        </label>
                        <label
                            v-if="at > 0"
                            class="ml-2 text-[13px] whitespace-nowrap text-soft"
                            title="A register file: it repeats together with the register above"
                        >
                            <input
                                type="checkbox"
                                class="mr-1 align-middle"
                                :checked="followsFile(registers, at)"
                                :aria-label="`${register.name} repeats with the register above`"
                                @change="join(at, $event)"
                            />with above
                        </label>
                    </td>
                    <td class="p-0.5">
                        <input
                            v-model="register.explains"
                            class="input w-full"
                            placeholder="what it is for"
                            :aria-label="`Meaning of ${register.name}`"
                        />
                    </td>
                    <td class="w-[88px] p-0.5 text-right whitespace-nowrap">
                        <button
                            class="px-1 text-accent"
                            :aria-label="`Add a field to ${register.name}`"
                            title="Add a field (Enter)"
                            @click="addField(at, register.fields.length)"
                        >
                            + field
                        </button>
                        <button
                            class="px-1 text-soft hover:text-error"
                            :aria-label="`Remove register ${register.name}`"
                            title="Remove the register"
                            @click="registers.splice(at, 1)"
                        >
                            ✕
                        </button>
                    </td>
                </tr>
                <tr v-for="(each, index) in register.fields" :key="index" @keydown="key($event, at, index)">
                    <td class="p-0.5 pl-4">
                        <input
                            v-model.trim="each.name"
                            class="input w-full font-mono"
                            :data-cell="`${at}.${index}`"
                            :aria-label="`Name of field ${index} of ${register.name}`"
                        />
                    </td>
                    <td class="p-0.5">
                        <input
                            v-typed="bitsText(each)"
                            class="input w-full font-mono text-[13px]"
                            :placeholder="places.get(`${register.name}.${each.name}`) ?? ''"
                            :aria-label="`Bits of ${register.name}.${each.name}`"
                            title="7:0 or 3; +4 for the next four; empty for the next one"
                            @change="bits(each, $event)"
                        />
                    </td>
                    <td class="w-[116px] p-0.5">
                        <select
                            class="input w-full"
                            :value="accessOf(each)"
                            :aria-label="`What software does with ${register.name}.${each.name}`"
                            @change="setAccess(each, value($event))"
                        >
                            <option v-for="access in ACCESSES" :key="access.word">{{ access.word }}</option>
                        </select>
                    </td>
                    <td class="w-[116px] p-0.5">
                        <select
                            class="input w-full"
                            :value="each.hardware ?? ''"
                            :aria-label="`What the block does with ${register.name}.${each.name}`"
                            @change="hardware(each, value($event))"
                        >
                            <option v-for="choice in HARDWARE" :key="choice.value" :value="choice.value">
                                {{ choice.word }}
                            </option>
                        </select>
                    </td>
                    <td class="w-[76px] p-0.5">
                        <input
                            v-typed="each.reset ?? ''"
                            class="input w-full font-mono"
                            placeholder="0"
                            :aria-label="`Reset value of ${register.name}.${each.name}`"
                            @change="set(each, 'reset', value($event))"
                        />
                    </td>
                    <td class="p-0.5">
                        <input
                            v-model="each.explains"
                            class="input w-full"
                            :aria-label="`Meaning of ${register.name}.${each.name}`"
                        />
                    </td>
                    <td class="p-0.5 text-right">
                        <button
                            class="px-1 text-soft hover:text-error"
                            :aria-label="`Remove field ${register.name}.${each.name}`"
                            title="Remove the field"
                            @click="register.fields.splice(index, 1)"
                        >
                            ✕
                        </button>
                    </td>
                </tr>
                <tr v-if="props.wrong(`/definition/registers/${at}`)">
                    <td colspan="7" class="px-4 pb-1 text-[13px] text-error" role="alert">
                        {{ props.wrong(`/definition/registers/${at}`) }}
                    </td>
                </tr>
            </tbody>
        </table>
        <div class="mt-2 flex items-center gap-3">
            <button class="button shrink-0" @click="addRegister(registers.length)">Add a register</button>
            <label
                class="button shrink-0 cursor-pointer focus-within:outline focus-within:outline-2"
                title="A table with commas, semicolons or tabs, or a component in XML (IEEE 1685)"
            >
                Add from a file …
                <input
                    type="file"
                    class="sr-only"
                    accept=".csv,.tsv,.txt,.xml"
                    aria-label="Add registers from a file"
                    @change="chosen"
                />
            </label>
            <span class="text-[13px] text-soft">
                Enter adds a field, Ctrl+Enter a register, Alt+↑ and Alt+↓ move a row. Paste rows from a
                spreadsheet: register, offset, field, bits, access, reset, meaning.
            </span>
        </div>
    </div>
</template>
