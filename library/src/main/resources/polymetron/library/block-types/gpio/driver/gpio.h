/* General-purpose lines. Which registers are there depends on the direction and on edge interrupts. */
#ifndef DRIVER_GPIO_H
#define DRIVER_GPIO_H

#include <stdint.h>

static inline volatile uint32_t *gpio_register(uintptr_t base, unsigned offset)
{
    return (volatile uint32_t *)(base + offset);
}

static inline uint32_t gpio_read(uintptr_t base)
{
    return *gpio_register(base, 0u);
}

static inline void gpio_write(uintptr_t base, uint32_t levels)
{
    *gpio_register(base, 4u) = levels;
}

static inline void gpio_drive(uintptr_t base, uint32_t lines)
{
    *gpio_register(base, 8u) = lines;
}

static inline void gpio_notice_edges(uintptr_t base, uint32_t rising, uint32_t falling)
{
    *gpio_register(base, 12u) = rising;
    *gpio_register(base, 16u) = falling;
}

/* Lines that had an edge since the last call. */
static inline uint32_t gpio_take_edges(uintptr_t base)
{
    uint32_t edges = *gpio_register(base, 20u);
    *gpio_register(base, 20u) = edges;
    return edges;
}

#endif
