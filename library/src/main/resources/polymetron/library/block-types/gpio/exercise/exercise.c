/*
 * Lines as software says: what is driven is read back, what is not is what is outside (nothing here); an edge is one of the line,
 * whoever drives it.
 */
#include "drivers/gpio.h"

static void exercise(void)
{
    exercise_expect("nothing outside", gpio_read(PORT_BASE), 0u);
    gpio_notice_edges(PORT_BASE, 0xFFu, 0xFFu);
    for (uint32_t lines = 1u; lines < 0x100u; lines <<= 1) {
        gpio_write(PORT_BASE, 0xFFu);
        gpio_drive(PORT_BASE, lines);
        exercise_expect("driven high", gpio_read(PORT_BASE), lines);
        gpio_write(PORT_BASE, ~lines & 0xFFu);
        exercise_expect("driven low", gpio_read(PORT_BASE), 0u);
        gpio_drive(PORT_BASE, 0u);
        exercise_expect("let go", gpio_read(PORT_BASE), 0u);
    }
    exercise_expect("own edges", gpio_take_edges(PORT_BASE), 0xFFu);
    exercise_expect("told once", gpio_take_edges(PORT_BASE), 0u);
    gpio_notice_edges(PORT_BASE, 0u, 0u);
    gpio_write(PORT_BASE, 1u);
    gpio_drive(PORT_BASE, 1u);
    gpio_drive(PORT_BASE, 0u);
    exercise_expect("not asked for", gpio_take_edges(PORT_BASE), 0u);
}
