/* UART with the register model of the 16550, one 32-bit word between registers. */
#ifndef DRIVER_UART_H
#define DRIVER_UART_H

#include <stdint.h>

static inline volatile uint32_t *uart_register(uintptr_t base, unsigned offset)
{
    return (volatile uint32_t *)(base + offset);
}

/* Sets a rate; the divisor latch is only reached while DLAB is set. */
static inline void uart_set_divisor(uintptr_t base, uint32_t divisor)
{
    /* A character on its way is sent at the old rate. */
    while ((*uart_register(base, 20u) & 0x40u) == 0u) {
    }
    *uart_register(base, 12u) = 0x83u;
    *uart_register(base, 0u) = divisor & 0xFFu;
    *uart_register(base, 4u) = (divisor >> 8) & 0xFFu;
    *uart_register(base, 12u) = 0x03u;
    *uart_register(base, 8u) = 0x07u;
}

static inline int uart_can_send(uintptr_t base)
{
    return (*uart_register(base, 20u) & 0x20u) != 0u;
}

static inline void uart_send(uintptr_t base, char character)
{
    while (!uart_can_send(base)) {
    }
    *uart_register(base, 0u) = (uint8_t)character;
}

static inline int uart_has_received(uintptr_t base)
{
    return (*uart_register(base, 20u) & 0x01u) != 0u;
}

static inline char uart_receive(uintptr_t base)
{
    return (char)(*uart_register(base, 0u) & 0xFFu);
}

/* Raises the interrupt for every received character, or never. */
static inline void uart_interrupt_on_receive(uintptr_t base, int on)
{
    uint32_t enabled = *uart_register(base, 4u) & ~0x01u;
    *uart_register(base, 4u) = enabled | (on ? 0x01u : 0x00u);
}

#endif
