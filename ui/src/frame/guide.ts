import { ref } from 'vue'
import type { PlatformView } from '../api/client'

/** The guided first run: offered once, shown while it is wanted, then out of the way for good. */
const KEY = 'guide'

export const guide = ref<'offered' | 'on' | 'off'>(
    (localStorage.getItem(KEY) as 'on' | 'off' | null) ?? 'offered',
)

/** The platform that it is about: it stays with that one. */
const PLATFORM = 'guide-platform'
export const guided = ref(localStorage.getItem(PLATFORM) ?? undefined)

export function setGuide(state: 'off'): void
export function setGuide(state: 'on', platform: string): void
export function setGuide(state: 'on' | 'off', platform?: string): void {
    guide.value = state
    localStorage.setItem(KEY, state)
    if (platform) {
        guided.value = platform
        localStorage.setItem(PLATFORM, platform)
    }
}

export interface GuideStep {
    title: string
    why: string
    /** What to look for in the library. */
    find?: string
    done: boolean
}

/** What makes a first platform, and how far this one is. */
export function guideSteps(platform: PlatformView): GuideStep[] {
    const has = (test: (block: PlatformView['blocks'][number]) => boolean): boolean =>
        platform.blocks.some(test)
    const named = (word: string): boolean => has((block) => block.type.split(':')[2] === word)
    const errors = platform.findings.filter((each) => each.grade === 'error' && !each.accepted).length
    const steps: GuideStep[] = [
        {
            title: 'A processor',
            why: 'It runs the program.',
            find: 'Small RISC-V',
            done: has((block) => block.kind === 'processor'),
        },
        {
            title: 'Memory',
            why: 'The program and its variables are in it.',
            find: 'Block memory',
            done: has((block) => block.kind === 'memory'),
        },
        {
            title: 'A console',
            why: 'It says hello on it.',
            find: 'console',
            done: named('uart'),
        },
        {
            title: 'Lamps',
            why: 'Something to see.',
            find: 'lamps',
            done: has((block) => block.outward.some((each) => each.part?.includes('lamps'))),
        },
        {
            title: 'A timer',
            why: 'It keeps the pace.',
            find: 'Machine timer',
            done: has((block) => block.kind === 'timer'),
        },
        {
            title: 'An interrupt controller',
            why: 'The console can call the processor.',
            find: 'Interrupt controller',
            done: has((block) => block.kind === 'interrupt-controller'),
        },
    ]
    return [
        ...steps,
        {
            title: 'Nothing that would fail',
            why: errors
                ? 'Open the findings at the foot: each has a fix.'
                : 'Everything is checked on each change.',
            done: steps.every((step) => step.done) && errors === 0,
        },
    ]
}
