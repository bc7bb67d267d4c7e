/* Platform-level interrupt controller of RISC-V, context 0. */
#ifndef DRIVER_INTERRUPT_CONTROLLER_H
#define DRIVER_INTERRUPT_CONTROLLER_H

#include <stdint.h>

static inline volatile uint32_t *interrupt_controller_word(uintptr_t base, uint32_t offset)
{
    return (volatile uint32_t *)(base + offset);
}

static inline void interrupt_controller_enable(uintptr_t base, uint32_t source, uint32_t priority)
{
    *interrupt_controller_word(base, 4u * source) = priority;
    *interrupt_controller_word(base, 0x2000u + 4u * (source / 32u)) |= 1u << (source % 32u);
}

static inline void interrupt_controller_disable(uintptr_t base, uint32_t source)
{
    *interrupt_controller_word(base, 0x2000u + 4u * (source / 32u)) &= ~(1u << (source % 32u));
}

static inline void interrupt_controller_threshold(uintptr_t base, uint32_t priority)
{
    *interrupt_controller_word(base, 0x200000u) = priority;
}

/* Number of the most urgent source, 0 for none; give it to interrupt_controller_complete when it is served. */
static inline uint32_t interrupt_controller_claim(uintptr_t base)
{
    return *interrupt_controller_word(base, 0x200004u);
}

static inline void interrupt_controller_complete(uintptr_t base, uint32_t source)
{
    *interrupt_controller_word(base, 0x200004u) = source;
}

#endif
