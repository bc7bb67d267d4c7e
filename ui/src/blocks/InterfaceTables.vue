<script setup lang="ts">
import { computed } from 'vue'
import { formula, type Definition, type Outward } from './ownBlock'
import { vTyped } from '../frame/typedText'

const definition = defineModel<Definition>({ required: true })
const props = defineProps<{ wrong: (at: string) => string }>()

/** Directions are expressions of the parameters, and so texts in quotes. */
const OUT = '"out"'
const IN = '"in"'
const BOTH = '"both"'

const PROTOCOLS = [
    { value: 'axi4-lite', word: 'AXI4-Lite' },
    { value: 'apb', word: 'APB' },
    { value: 'ahb-lite', word: 'AHB-Lite' },
    { value: 'wishbone-b4', word: 'Wishbone B4' },
]
const bus = computed(() =>
    definition.value.busInterfaces?.find((each) => each.role === 'target' && each.usage === 'registers'),
)
function setProtocol(value: string): void {
    if (bus.value) {
        bus.value.protocols = [value]
    }
}

/** Fields that software writes, which lines can follow. */
const fields = computed(() =>
    (definition.value.registers ?? []).flatMap((register) =>
        register.fields.map((field) => ({
            name: `${register.name}.${field.name}`,
            writes: field.software !== 'read-only',
        })),
    ),
)

/** Lines follow a field where there is one outward interface with one port; anything else is for the module. */
const canFollow = computed(
    () => definition.value.outward?.length === 1 && definition.value.outward[0]?.ports.length === 1,
)
const followed = computed(() => {
    const role = definition.value.provides?.find((each) => 'lines' in each)?.lines
    return String(role?.output ?? role?.input ?? '')
})
function follow(field: string): void {
    const others = (definition.value.provides ?? []).filter((each) => !('lines' in each))
    const port = definition.value.outward?.[0]?.ports[0]
    const out = port?.direction === OUT
    definition.value.provides =
        field && port && bus.value
            ? [
                  ...others,
                  {
                      lines: {
                          registers: bus.value.name,
                          count: port.width,
                          direction: port.direction,
                          [out ? 'output' : 'input']: field,
                      },
                  },
              ]
            : others
}

function addLines(): void {
    definition.value.outward ??= []
    const number = definition.value.outward.length
    definition.value.outward.push({
        name: number ? `lines${number}` : 'lines',
        title: 'lines',
        partKinds: ['header'],
        ports: [{ name: number ? `value${number}` : 'value', direction: OUT, width: 1 }],
    })
}
function setWidth(port: Outward['ports'][number], text: string): void {
    port.width = formula(text) ?? 1
    if (followed.value) {
        follow(followed.value)
    }
}
function setDirection(port: Outward['ports'][number], direction: string): void {
    port.direction = direction
    follow('')
}
function addInterrupt(): void {
    definition.value.interrupts ??= []
    const number = definition.value.interrupts.length
    definition.value.interrupts.push({
        name: number ? `irq${number}` : 'irq',
        end: 'source',
        line: 'device',
        trigger: 'high',
    })
}

/** The field that raises an interrupt, and the one that lets it through. */
const raisedBy = (source: string): string =>
    (definition.value.registers ?? [])
        .flatMap((register) => register.fields.map((field) => ({ register, field })))
        .filter(({ field }) => field.interrupt?.source === source)
        .map(({ register, field }) => `${register.name}.${field.name}`)[0] ?? ''
const enabledBy = (source: string): string =>
    (definition.value.registers ?? [])
        .flatMap((register) => register.fields)
        .find((field) => field.interrupt?.source === source)?.interrupt?.enable ?? ''
function raise(source: string, name: string, enable: string): void {
    for (const register of definition.value.registers ?? []) {
        for (const field of register.fields) {
            if (field.interrupt?.source === source) {
                delete field.interrupt
            }
            if (`${register.name}.${field.name}` === name) {
                field.interrupt = { source, ...(enable ? { enable } : {}) }
            }
        }
    }
}
function addParameter(): void {
    definition.value.parameters ??= []
    const name = `WIDTH${definition.value.parameters.length || ''}`
    definition.value.parameters.push({
        name,
        title: name.toLowerCase(),
        form: 'integer',
        initial: '8',
        minimum: 1,
        maximum: 32,
        explains: 'What it changes.',
        macro: name,
    })
}

/** With several clocks each interface is in one of them. */
const hasClocks = computed(() => (definition.value.clocks?.length ?? 0) > 1)
const clockOf = (of: { clock?: string }): string => of.clock ?? definition.value.clocks?.[0]?.name ?? ''
const clocking = computed(() => {
    const clocks = (definition.value.clocks ?? []).map((each) => each.name)
    const resets = (definition.value.resets ?? []).map((each) => each.name)
    return clocks.length > 1
        ? `Clocks are ${clocks.join(', ')}; resets ${resets.join(', ')}.`
        : clocks.length
          ? `Clock and reset are ${clocks[0]} and ${resets[0] ?? 'none'}.`
          : ''
})
const value = (event: Event): string => (event.target as HTMLInputElement).value
</script>

<template>
    <section aria-labelledby="interfaces">
        <h2 id="interfaces" class="heading">What it is connected to</h2>
        <div class="mt-1.5 flex items-center gap-3">
            <label v-if="bus" class="whitespace-nowrap">
                Registers on
                <select class="input ml-1" :value="bus.protocols[0]" @change="setProtocol(value($event))">
                    <option v-for="each in PROTOCOLS" :key="each.value" :value="each.value">
                        {{ each.word }}
                    </option>
                </select>
            </label>
            <label v-if="bus && hasClocks" class="whitespace-nowrap">
                in
                <select
                    class="input ml-1 font-mono"
                    aria-label="Clock of the registers"
                    :value="clockOf(bus)"
                    @change="bus.clock = value($event)"
                >
                    <option v-for="each in definition.clocks" :key="each.name">{{ each.name }}</option>
                </select>
            </label>
            <span class="text-[13px] text-soft"
                >{{ clocking }} The block works on any bus: adapters are inserted where they differ.</span
            >
        </div>
        <div v-if="hasClocks && definition.streams?.length" class="mt-2 flex flex-wrap gap-x-5 gap-y-1">
            <label v-for="stream in definition.streams" :key="stream.name">
                <span class="text-soft">Stream</span> <span class="font-mono">{{ stream.name }}</span> in
                <select
                    class="input ml-1 font-mono"
                    :aria-label="`Clock of ${stream.name}`"
                    :value="clockOf(stream)"
                    @change="stream.clock = value($event)"
                >
                    <option v-for="each in definition.clocks" :key="each.name">{{ each.name }}</option>
                </select>
            </label>
        </div>
        <div class="mt-2 grid grid-cols-[auto_auto_auto_auto_1fr_auto] items-center gap-x-2 gap-y-1">
            <template v-for="(outward, at) in definition.outward" :key="at">
                <template v-for="port in outward.ports" :key="port.name">
                    <span class="text-soft">Lines</span>
                    <input
                        v-model.trim="port.name"
                        class="input w-32 font-mono"
                        :aria-label="`Name of lines ${at}`"
                    />
                    <select
                        class="input"
                        :value="port.direction"
                        :aria-label="`Direction of ${port.name}`"
                        @change="setDirection(port, value($event))"
                    >
                        <option :value="OUT">out of the chip</option>
                        <option :value="IN">into the chip</option>
                        <option :value="BOTH">both ways</option>
                    </select>
                    <label>
                        <input
                            v-typed="port.width"
                            class="input w-16 font-mono text-[13px]"
                            :title="String(port.width)"
                            :aria-label="`Number of ${port.name}`"
                            @change="setWidth(port, value($event))"
                        />
                        wide
                    </label>
                    <div class="flex min-w-0 items-center gap-2">
                        <input
                            v-typed="(outward.partKinds ?? []).join(', ')"
                            class="input min-w-0 flex-1"
                            :aria-label="`Board parts for ${port.name}`"
                            title="Sorts of board part that they can drive, such as lamps, switches, header"
                            @change="
                                outward.partKinds = value($event)
                                    .split(',')
                                    .map((each) => each.trim())
                                    .filter(Boolean)
                            "
                        />
                        <label v-if="canFollow && port.direction !== BOTH" class="whitespace-nowrap">
                            {{ port.direction === OUT ? 'show' : 'are read in' }}
                            <select
                                class="input ml-1 font-mono"
                                :value="followed"
                                :aria-label="`Field of ${port.name}`"
                                @change="follow(value($event))"
                            >
                                <option value="">what the module says</option>
                                <option v-for="field in fields" :key="field.name">{{ field.name }}</option>
                            </select>
                        </label>
                    </div>
                    <button
                        class="px-1 text-soft hover:text-error"
                        :aria-label="`Remove ${port.name}`"
                        @click="(definition.outward!.splice(at, 1), follow(''))"
                    >
                        ✕
                    </button>
                </template>
                <p
                    v-if="props.wrong(`/definition/outward/${at}`)"
                    class="col-span-6 text-[13px] text-error"
                    role="alert"
                >
                    {{ props.wrong(`/definition/outward/${at}`) }}
                </p>
            </template>
            <template v-for="(interrupt, at) in definition.interrupts" :key="`i${at}`">
                <span class="text-soft">Interrupt</span>
                <input
                    v-model.trim="interrupt.name"
                    class="input w-32 font-mono"
                    :aria-label="`Name of interrupt ${at}`"
                />
                <select
                    v-model="interrupt.trigger"
                    class="input"
                    :aria-label="`Trigger of ${interrupt.name}`"
                >
                    <option value="high">while high</option>
                    <option value="edge">rising edge</option>
                </select>
                <span />
                <div class="flex min-w-0 items-center gap-2">
                    <label class="whitespace-nowrap">
                        raised by
                        <select
                            class="input ml-1 font-mono"
                            :value="raisedBy(interrupt.name)"
                            :aria-label="`Field that raises ${interrupt.name}`"
                            @change="raise(interrupt.name, value($event), enabledBy(interrupt.name))"
                        >
                            <option value="">the module</option>
                            <option v-for="field in fields" :key="field.name">{{ field.name }}</option>
                        </select>
                    </label>
                    <label v-if="raisedBy(interrupt.name)" class="whitespace-nowrap">
                        while
                        <select
                            class="input ml-1 font-mono"
                            :value="enabledBy(interrupt.name)"
                            :aria-label="`Field that enables ${interrupt.name}`"
                            @change="raise(interrupt.name, raisedBy(interrupt.name), value($event))"
                        >
                            <option value="">always</option>
                            <option v-for="field in fields.filter((each) => each.writes)" :key="field.name">
                                {{ field.name }}
                            </option>
                        </select>
                    </label>
                </div>
                <button
                    class="px-1 text-soft hover:text-error"
                    :aria-label="`Remove interrupt ${interrupt.name}`"
                    @click="(raise(interrupt.name, '', ''), definition.interrupts!.splice(at, 1))"
                >
                    ✕
                </button>
            </template>
            <template v-for="(parameter, at) in definition.parameters" :key="`p${at}`">
                <span class="text-soft">Parameter</span>
                <input
                    v-model.trim="parameter.name"
                    class="input w-32 font-mono"
                    :aria-label="`Name of parameter ${at}`"
                />
                <label>
                    <input
                        v-model.trim="parameter.initial"
                        class="input w-20 font-mono"
                        :aria-label="`Default of ${parameter.name}`"
                    />
                </label>
                <label class="whitespace-nowrap">
                    <input
                        v-typed="parameter.minimum ?? ''"
                        class="input w-14 font-mono"
                        :aria-label="`Least of ${parameter.name}`"
                        @change="parameter.minimum = formula(value($event))"
                    />
                    to
                    <input
                        v-typed="parameter.maximum ?? ''"
                        class="input w-14 font-mono"
                        :aria-label="`Most of ${parameter.name}`"
                        @change="parameter.maximum = formula(value($event))"
                    />
                </label>
                <input
                    v-model="parameter.explains"
                    class="input min-w-0"
                    :aria-label="`Meaning of ${parameter.name}`"
                />
                <button
                    class="px-1 text-soft hover:text-error"
                    :aria-label="`Remove parameter ${parameter.name}`"
                    @click="definition.parameters!.splice(at, 1)"
                >
                    ✕
                </button>
                <p
                    v-if="props.wrong(`/definition/parameters/${at}`)"
                    class="col-span-6 text-[13px] text-error"
                    role="alert"
                >
                    {{ props.wrong(`/definition/parameters/${at}`) }}
                </p>
            </template>
        </div>
        <div class="mt-2 flex gap-2">
            <button class="button !py-0.5 text-[13px]" @click="addLines">Add lines</button>
            <button class="button !py-0.5 text-[13px]" @click="addInterrupt">Add an interrupt</button>
            <button class="button !py-0.5 text-[13px]" @click="addParameter">Add a parameter</button>
        </div>
    </section>
</template>
