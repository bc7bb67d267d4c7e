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

/* One step; false when nobody acknowledged or the bus was lost. */
static inline bool i2c_step(uintptr_t base, uint32_t command)
{
    *i2c_register(base, 8u) = command;
    while ((*i2c_register(base, 4u) & 1u) != 0u) {
    }
    return (*i2c_register(base, 4u) & 6u) == 0u;
}

/* Writes bytes to a device with a 7-bit address. */
static inline bool i2c_write(uintptr_t base, unsigned device, const uint8_t *bytes, size_t count)
{
    *i2c_register(base, 12u) = device << 1;
    bool answered = i2c_step(base, 1u | 2u | (count == 0u ? 16u : 0u));
    for (size_t at = 0; answered && at < count; at++) {
        *i2c_register(base, 12u) = bytes[at];
        answered = i2c_step(base, 2u | (at + 1u == count ? 16u : 0u));
    }
    return answered;
}

/* Reads bytes, at least one, from a device with a 7-bit address. */
static inline bool i2c_read(uintptr_t base, unsigned device, uint8_t *bytes, size_t count)
{
    *i2c_register(base, 12u) = device << 1 | 1u;
    bool answered = i2c_step(base, 1u | 2u);
    for (size_t at = 0; answered && at < count; at++) {
        bool last = at + 1u == count;
        answered = i2c_step(base, 4u | (last ? 8u | 16u : 0u));
        bytes[at] = (uint8_t)*i2c_register(base, 12u);
    }
    return answered;
}

#endif
