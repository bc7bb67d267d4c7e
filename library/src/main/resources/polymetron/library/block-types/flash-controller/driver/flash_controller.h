/* Erases and writes a serial flash; reads need no driver. */
#ifndef DRIVER_FLASH_CONTROLLER_H
#define DRIVER_FLASH_CONTROLLER_H

#include <stdbool.h>
#include <stdint.h>

static inline volatile uint32_t *flash_controller_register(uintptr_t base, unsigned offset)
{
    return (volatile uint32_t *)(base + offset);
}

/* Reads of the memory range wait until the chip is given back. */
static inline void flash_controller_take(uintptr_t base)
{
    *flash_controller_register(base, 0u) = 1u;
}

static inline void flash_controller_give_back(uintptr_t base)
{
    *flash_controller_register(base, 0u) = 0u;
}

static inline void flash_controller_select(uintptr_t base, bool on)
{
    *flash_controller_register(base, 0u) = 1u | (on ? 2u : 0u);
}

/* Sends a byte and returns what came meanwhile. */
static inline uint8_t flash_controller_exchange(uintptr_t base, uint8_t value)
{
    *flash_controller_register(base, 8u) = value;
    while ((*flash_controller_register(base, 4u) & 1u) != 0u) {
    }
    return (uint8_t)*flash_controller_register(base, 8u);
}

/* Whether a byte was done since the last call. */
static inline bool flash_controller_take_done(uintptr_t base)
{
    if ((*flash_controller_register(base, 12u) & 1u) == 0u) {
        return false;
    }
    *flash_controller_register(base, 12u) = 1u;
    return true;
}

#endif
