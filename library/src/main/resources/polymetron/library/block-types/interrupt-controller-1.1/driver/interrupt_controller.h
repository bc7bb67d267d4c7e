/*
 * Platform-level interrupt controller of RISC-V (RISC-V PLIC specification 1.0.0). A context is one line to a hart:
 * each enables sources and takes interrupts for itself, while priorities are common to all. Functions without a
 * context are for context 0.
 */
#ifndef DRIVER_INTERRUPT_CONTROLLER_H
#define DRIVER_INTERRUPT_CONTROLLER_H

#include <stdint.h>

static inline volatile uint32_t *interrupt_controller_word(uintptr_t base, uint32_t offset)
{
    return (volatile uint32_t *)(base + offset);
}

static inline volatile uint32_t *interrupt_controller_enables(uintptr_t base, uint32_t context, uint32_t source)
{
    return interrupt_controller_word(base, 0x2000u + 0x80u * context + 4u * (source / 32u));
}

/* Priority 0 never interrupts. */
static inline void interrupt_controller_priority(uintptr_t base, uint32_t source, uint32_t priority)
{
    *interrupt_controller_word(base, 4u * source) = priority;
}

static inline void interrupt_controller_enable_for(uintptr_t base, uint32_t context, uint32_t source)
{
    *interrupt_controller_enables(base, context, source) |= 1u << (source % 32u);
}

static inline void interrupt_controller_disable_for(uintptr_t base, uint32_t context, uint32_t source)
{
    *interrupt_controller_enables(base, context, source) &= ~(1u << (source % 32u));
}

/* Only priorities above it interrupt. */
static inline void interrupt_controller_threshold_for(uintptr_t base, uint32_t context, uint32_t priority)
{
    *interrupt_controller_word(base, 0x200000u + 0x1000u * context) = priority;
}

/* Number of the most urgent source, 0 for none; give it to the matching complete when it is served. */
static inline uint32_t interrupt_controller_claim_for(uintptr_t base, uint32_t context)
{
    return *interrupt_controller_word(base, 0x200004u + 0x1000u * context);
}

static inline void interrupt_controller_complete_for(uintptr_t base, uint32_t context, uint32_t source)
{
    *interrupt_controller_word(base, 0x200004u + 0x1000u * context) = source;
}

static inline void interrupt_controller_enable(uintptr_t base, uint32_t source, uint32_t priority)
{
    interrupt_controller_priority(base, source, priority);
    interrupt_controller_enable_for(base, 0u, source);
}

static inline void interrupt_controller_disable(uintptr_t base, uint32_t source)
{
    interrupt_controller_disable_for(base, 0u, source);
}

static inline void interrupt_controller_threshold(uintptr_t base, uint32_t priority)
{
    interrupt_controller_threshold_for(base, 0u, priority);
}

static inline uint32_t interrupt_controller_claim(uintptr_t base)
{
    return interrupt_controller_claim_for(base, 0u);
}

static inline void interrupt_controller_complete(uintptr_t base, uint32_t source)
{
    interrupt_controller_complete_for(base, 0u, source);
}

#endif
