/* Machine timer and software interrupts of the RISC-V ACLINT, on a 32-bit hart. */
#ifndef DRIVER_MACHINE_TIMER_H
#define DRIVER_MACHINE_TIMER_H

#include <stdint.h>

static inline volatile uint32_t *machine_timer_word(uintptr_t base, unsigned offset)
{
    return (volatile uint32_t *)(base + offset);
}

/* The upper half is read again in case the lower one wrapped in between. */
static inline uint64_t machine_timer_now(uintptr_t base)
{
    uint32_t high;
    uint32_t low;
    do {
        high = *machine_timer_word(base, 0xBFFCu);
        low = *machine_timer_word(base, 0xBFF8u);
    } while (high != *machine_timer_word(base, 0xBFFCu));
    return ((uint64_t)high << 32) | low;
}

/*
 * The timer interrupt of one of several harts: the index is that of the hart's MTIMECMP register, as the header gives it. The
 * lower half is first set to its largest value, so that no interrupt comes too early.
 */
static inline void machine_timer_set_for(uintptr_t base, unsigned index, uint64_t time)
{
    *machine_timer_word(base, 0x4000u + 8u * index) = 0xFFFFFFFFu;
    *machine_timer_word(base, 0x4004u + 8u * index) = (uint32_t)(time >> 32);
    *machine_timer_word(base, 0x4000u + 8u * index) = (uint32_t)time;
}

static inline void machine_timer_set(uintptr_t base, uint64_t time)
{
    machine_timer_set_for(base, 0u, time);
}

/* The software interrupt of one of several harts; what was stored before is seen by a hart that takes it. */
static inline void machine_timer_software_interrupt_for(uintptr_t base, unsigned index, int on)
{
#ifdef __riscv
    __asm__ volatile("fence" ::: "memory");
#endif
    *machine_timer_word(base, 4u * index) = on ? 1u : 0u;
}

static inline void machine_timer_software_interrupt(uintptr_t base, int on)
{
    machine_timer_software_interrupt_for(base, 0u, on);
}

#endif
