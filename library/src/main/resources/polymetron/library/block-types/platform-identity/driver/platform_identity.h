/* The platform's fingerprint, as the hardware has it. */
#ifndef DRIVER_PLATFORM_IDENTITY_H
#define DRIVER_PLATFORM_IDENTITY_H

#include <stdbool.h>
#include <stdint.h>

/* Whether the hardware is the one of the header: give it PLATFORM_FINGERPRINT, sixteen hexadecimal digits. */
static inline bool platform_identity_is(uintptr_t base, const char *fingerprint)
{
    for (unsigned digit = 0; digit < 16u; digit++) {
        uint32_t half = *(volatile uint32_t *)(base + (digit < 8u ? 0u : 4u));
        uint32_t value = half >> (28u - 4u * (digit % 8u)) & 15u;
        if (fingerprint[digit] != "0123456789abcdef"[value]) {
            return false;
        }
    }
    return fingerprint[16] == '\0';
}

#endif
