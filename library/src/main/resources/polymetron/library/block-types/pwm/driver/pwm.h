/* Pulse-width modulation. */
#ifndef DRIVER_PWM_H
#define DRIVER_PWM_H

#include <stdint.h>

static inline volatile uint32_t *pwm_register(uintptr_t base, unsigned offset)
{
    return (volatile uint32_t *)(base + offset);
}

static inline void pwm_start(uintptr_t base, uint32_t period_counts, uint32_t prescale)
{
    *pwm_register(base, 4u) = period_counts - 1u;
    *pwm_register(base, 8u) = prescale;
    *pwm_register(base, 0u) = 1u;
}

static inline void pwm_set(uintptr_t base, unsigned channel, uint32_t counts)
{
    *pwm_register(base, 64u + 4u * channel) = counts;
}

static inline void pwm_stop(uintptr_t base)
{
    *pwm_register(base, 0u) = 0u;
}

#endif
