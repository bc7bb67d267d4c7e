/* Two-wire bus. */
#ifndef DRIVER_I2C_CONTROLLER_H
#define DRIVER_I2C_CONTROLLER_H

#include <stdbool.h>
#include <stddef.h>
#include <stdint.h>

static inline volatile uint32_t *i2c_register(uintptr_t base, unsigned offset)
{
    return (volatile uint32_t *)(base + offset);
}

static inline void i2c_begin(uintptr_t base, uint32_t low_cycles, uint32_t high_cycles)
{
    *i2c_register(base, 16u) = low_cycles;
    *i2c_register(base, 20u) = high_cycles;
    *i2c_register(base, 0u) = 1u;
}


/*
 * One step: a start (1), a byte written (2) or read (4), which is not acknowledged (8), and a stop (16), in this order. False
 * when there was no acknowledgement (2 in the status) or the bus was lost (4).
 */
static inline bool i2c_step(uintptr_t base, uint32_t command)
{
    *i2c_register(base, 8u) = command;
    while ((*i2c_register(base, 4u) & 1u) != 0u) {
    }
    return (*i2c_register(base, 4u) & (2u | 4u)) == 0u;
}

/*
 * Gives the bus back after a step that failed (UM10204, 3.1.6: after a not-acknowledge the controller generates a stop or a
 * repeated start). When another controller won it, the bus is not ours to stop; when the step had a stop, it is free.
 */
static inline void i2c_abandon(uintptr_t base, uint32_t command)
{
    if ((command & 16u) == 0u && (*i2c_register(base, 4u) & 4u) == 0u) {
        (void)i2c_step(base, 16u);
    }
}

/* A step that is followed by a stop when it fails. */
static inline bool i2c_step_or_stop(uintptr_t base, uint32_t command)
{
    bool answered = i2c_step(base, command);
    if (!answered) {
        i2c_abandon(base, command);
    }
    return answered;
}

/* Writes bytes to a device with a 7-bit address. */
static inline bool i2c_write(uintptr_t base, unsigned device, const uint8_t *bytes, size_t count)
{
    *i2c_register(base, 12u) = (uint32_t)device << 1;
    bool answered = i2c_step_or_stop(base, 1u | 2u | (count == 0u ? 16u : 0u));
    for (size_t at = 0; answered && at < count; at++) {
        *i2c_register(base, 12u) = bytes[at];
        answered = i2c_step_or_stop(base, 2u | (at + 1u == count ? 16u : 0u));
    }
    return answered;
}

/* Reads bytes, at least one, from a device with a 7-bit address. */
static inline bool i2c_read(uintptr_t base, unsigned device, uint8_t *bytes, size_t count)
{
    *i2c_register(base, 12u) = (uint32_t)device << 1 | 1u;
    bool answered = i2c_step_or_stop(base, 1u | 2u);
    for (size_t at = 0; answered && at < count; at++) {
        answered = i2c_step_or_stop(base, 4u | (at + 1u == count ? 8u | 16u : 0u));
        bytes[at] = (uint8_t)*i2c_register(base, 12u);
    }
    return answered;
}

static inline void i2c_interrupt(uintptr_t base, bool on)
{
    *i2c_register(base, 24u) = on ? 1u : 0u;
}

/* Whether a command has ended since the last call. */
static inline bool i2c_take_done(uintptr_t base)
{
    if ((*i2c_register(base, 28u) & 1u) == 0u) {
        return false;
    }
    *i2c_register(base, 28u) = 1u;
    return true;
}

#endif
