/*
 * Erases and writes a serial flash with the commands of JEDEC JESD216; reads of the memory range need no driver. Addresses count from
 * the beginning of the chip. While the driver has the chip, reads of the memory range wait: a program that runs from the flash
 * calls this from another memory.
 */
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

/* A command that has nothing but its byte. */
static inline void flash_controller_command(uintptr_t base, uint8_t command)
{
    flash_controller_select(base, true);
    (void)flash_controller_exchange(base, command);
    flash_controller_select(base, false);
}

/* Manufacturer in the upper byte, then type and capacity (JEDEC JEP106 and JESD216: command 9Fh). */
static inline uint32_t flash_controller_identity(uintptr_t base)
{
    uint32_t identity = 0u;
    unsigned index;
    flash_controller_take(base);
    flash_controller_select(base, true);
    (void)flash_controller_exchange(base, 0x9Fu);
    for (index = 0u; index < 3u; index++) {
        identity = identity << 8 | flash_controller_exchange(base, 0u);
    }
    flash_controller_give_back(base);
    return identity;
}

/* Whether an erase or a page is under way, for a driver that has the chip. */
static inline bool flash_controller_is_busy(uintptr_t base)
{
    uint8_t status;
    flash_controller_select(base, true);
    (void)flash_controller_exchange(base, 0x05u);
    status = flash_controller_exchange(base, 0u);
    flash_controller_select(base, false);
    return (status & 1u) != 0u;
}

/* Addresses of 32 bits have commands of their own, which chips of more than 16 MiB know. */
static inline void flash_controller_address(uintptr_t base, uint8_t command, uint8_t long_command, uint32_t address)
{
    bool is_long = address >= 0x1000000u;
    (void)flash_controller_exchange(base, is_long ? long_command : command);
    if (is_long) {
        (void)flash_controller_exchange(base, (uint8_t)(address >> 24));
    }
    (void)flash_controller_exchange(base, (uint8_t)(address >> 16));
    (void)flash_controller_exchange(base, (uint8_t)(address >> 8));
    (void)flash_controller_exchange(base, (uint8_t)address);
}

/* Erases the 4 KiB around an address to ones, and waits for it. */
static inline void flash_controller_erase(uintptr_t base, uint32_t address)
{
    flash_controller_take(base);
    flash_controller_command(base, 0x06u);
    flash_controller_select(base, true);
    flash_controller_address(base, 0x20u, 0x21u, address);
    flash_controller_select(base, false);
    while (flash_controller_is_busy(base)) {
    }
    flash_controller_give_back(base);
}

/* Writes bytes, page by page, and waits for it: ones become zeros, never the other way round. */
static inline void flash_controller_write(uintptr_t base, uint32_t address, const uint8_t *bytes, uint32_t length)
{
    flash_controller_take(base);
    while (length != 0u) {
        uint32_t part = 256u - (address & 255u);
        uint32_t index;
        part = part < length ? part : length;
        flash_controller_command(base, 0x06u);
        flash_controller_select(base, true);
        flash_controller_address(base, 0x02u, 0x12u, address);
        for (index = 0u; index < part; index++) {
            (void)flash_controller_exchange(base, bytes[index]);
        }
        flash_controller_select(base, false);
        while (flash_controller_is_busy(base)) {
        }
        address += part;
        bytes += part;
        length -= part;
    }
    flash_controller_give_back(base);
}

/* Raises the interrupt when a byte is done, for a driver that has the chip. */
static inline void flash_controller_interrupt(uintptr_t base, bool on)
{
    uint32_t control = *flash_controller_register(base, 0u) & 3u;
    *flash_controller_register(base, 0u) = control | (on ? 4u : 0u);
}

#endif
